package sandpiper.logic.run;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.value.RecordValue;

/**
 * A compiled expression, safe to share between threads.
 *
 * <p>It begins as a tree of functions, which is made in no time. When it has run often it is
 * written as a class, aside, and goes on as that; both come to the same.
 */
public final class Code {
    /** Runs after which an expression is worth a class, which costs some thousand of them. */
    private static final int OFTEN = 5_000;

    private final @Nullable Term term;
    private final int slots;

    // Both may be seen late or lost between threads: an older function does as well, and what is
    // counted need not be exact.
    private Op op;
    private int runs;
    private volatile boolean written;

    /**
     * @param term what it does, to be written as a class; {@code null} for what stays as it is
     */
    Code(Op op, @Nullable Term term, int slots) {
        this.op = op;
        this.term = term;
        this.slots = slots;
    }

    /** A frame to fill before it is run. */
    public Frame frame(Evaluation run) {
        return new Frame(slots, run);
    }

    /**
     * Runs it.
     *
     * @throws BudgetException when it takes more than it may
     */
    public Object run(Frame frame) {
        count();
        return op.eval(frame);
    }

    /**
     * Runs it about a record, with nothing else to read.
     *
     * @throws BudgetException when it takes more than it may
     */
    public Object run(RecordValue record, Evaluation run) {
        count();
        return op.about(record, run, slots);
    }

    /** Whether it comes to true; null is not true. */
    public boolean holds(Frame frame) {
        return run(frame) == Boolean.TRUE;
    }

    private void count() {
        if (runs < OFTEN && ++runs == OFTEN && term != null) {
            writeAside(term);
        }
    }

    private void writeAside(Term term) {
        Thread.ofVirtual().name("expression").start(() -> write(term));
    }

    private void write(Term term) {
        var made = GeneratedClass.of(term);
        if (made != null) {
            op = made;
            written = true;
        }
    }

    /**
     * The names it reads of records at hand, as they are written, each with its value; lists and
     * what is looked at item by item are left out. For accounts: it costs more than a run.
     */
    public Map<String, Object> names(Frame frame) {
        var names = new LinkedHashMap<String, Object>();
        if (term != null) {
            collect(term, frame, names);
        }
        return names;
    }

    private static void collect(Term at, Frame frame, Map<String, Object> into) {
        switch (at) {
            case Term.Read read -> {
                var path = path(read);
                if (path != null && !(read.type() instanceof LogicType.ListOf)) {
                    into.putIfAbsent(path, Compiler.op(read).eval(frame));
                }
            }
            case Term.Local local when local.slot() >= NameContext.FIRST_NAME ->
                    into.putIfAbsent(local.name(), frame.get(local.slot()));
            // Items have values only while they are looked at.
            case Term.Filter _,
                    Term.Project _,
                    Term.For _,
                    Term.Quantified _,
                    Term.FunctionOf _,
                    Term.Find _ -> {}
            default -> Terms.children(at).forEach(child -> collect(child, frame, into));
        }
    }

    /** A path from a record at hand, as it is written; {@code null} from anything else. */
    private static @Nullable String path(Term.Read read) {
        return switch (read.source()) {
            case Term.Local local when local.slot() == NameContext.THIS -> read.member().name();
            case Term.Local local when local.slot() < NameContext.ITEM ->
                    local.name() + "." + read.member().name();
            case Term.Read inner -> {
                var before = path(inner);
                yield before == null ? null : before + "." + read.member().name();
            }
            default -> null;
        };
    }

    /** Whether it runs as a class by now. */
    boolean isWritten() {
        return written;
    }
}
