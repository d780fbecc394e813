package sandpiper.model.logic;

import java.time.ZoneId;
import java.util.List;
import sandpiper.logic.Span;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Selections;
import sandpiper.logic.run.Code;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.run.Evaluation;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;

/**
 * A condition on records of an object that can be asked both ways: of the store for many, and in
 * memory for one at hand.
 */
public final class RecordCondition {
    private final Code code;
    private final Selections selections;
    private final List<Code> values;
    private final ZoneId zone;

    private RecordCondition(Code code, Selections selections, List<Code> values, ZoneId zone) {
        this.code = code;
        this.selections = selections;
        this.values = values;
        this.zone = zone;
    }

    /** For what is not right, or not answerable by a store: a condition of no record. */
    private static final String NONE = "false";

    /**
     * Compiles a condition that was found right when it was written down. One that has become wrong
     * since, by another release, holds for no record.
     */
    static RecordCondition of(Release release, ObjectType object, String text) {
        var record = release.recordType(object);
        var checked = Checker.condition(text, NameContext.of(release.world(), record));
        var item =
                new Term.Local(
                        NameContext.THIS, "this", new LogicType.RecordOf(record), new Span(0, 0));
        var selections = Selections.where(record, checked.term(), item);
        if (!checked.isAccepted() || selections.isEmpty()) {
            return of(release, object, NONE);
        }
        return new RecordCondition(
                Compiler.compile(checked),
                selections.get(),
                selections.get().values().stream()
                        .map(needed -> Compiler.compile(needed, checked.slots()))
                        .toList(),
                object.zone());
    }

    /** For one record, in a frame with it in its place. */
    public Code code() {
        return code;
    }

    /** For the store, as it stands at the moment of a run. */
    public Condition condition(Evaluation run) {
        var bound = values.stream().map(value -> value.run(value.frame(run))).toList();
        var condition = selections.bind(null, bound, zone).condition();
        return condition == null ? new Condition.All(List.of()) : condition;
    }
}
