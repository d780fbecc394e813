package sandpiper.logic.run;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.term.Term;
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
        var made = Generated.of(term);
        if (made != null) {
            op = made;
            written = true;
        }
    }

    /** Whether it runs as a class by now. */
    boolean isWritten() {
        return written;
    }
}
