package sandpiper.logic.filter;

import java.time.Clock;
import java.util.List;
import java.util.Objects;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Problem;
import sandpiper.logic.Span;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.Setting;
import sandpiper.logic.condition.Selections;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.run.Evaluation;
import sandpiper.logic.run.RecordSource;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.type.World;

/** Reads and checks filters over one record type: conditions a store can answer. */
public final class ConditionChecker {
    private ConditionChecker() {}

    /**
     * Reads and checks one condition. Never throws on bad text; all problems come back at once.
     *
     * @param clock gives {@code today()} and {@code now()}, and the zone of dates and times written
     *     without one
     */
    public static Checked check(String text, RecordType record, Clock clock) {
        var checked = Checker.condition(text, Setting.of(World.EMPTY, record));
        if (!checked.isAccepted()) {
            return new Checked.Rejected(
                    checked.problems().stream().filter(Problem::isError).toList());
        }
        var item =
                new Term.Local(
                        Setting.THIS, "this", new LogicType.RecordOf(record), new Span(0, 0));
        if (!Terms.uses(checked.term(), item)) {
            return rejected(
                    LogicCode.NO_FIELD,
                    checked.term().span(),
                    "This names no field; a filter compares fields, as in state = \"Open\".");
        }
        var selections = Selections.where(record, checked.term(), item);
        if (selections.isEmpty()) {
            return rejected(
                    LogicCode.NOT_IN_SQL,
                    Selections.obstacle(checked.term(), item),
                    "A filter cannot ask this: it compares fields with each other and with values,"
                            + " joined by and, or and not.");
        }
        var run = new Evaluation(clock.instant(), clock.getZone(), RecordSource.NONE);
        var bound =
                selections.get().values().stream()
                        .map(value -> value(value, checked, run))
                        .toList();
        return new Checked.Accepted(
                Objects.requireNonNull(
                        selections.get().bind(null, bound, clock.getZone()).condition()));
    }

    private static Object value(Term term, CheckedTerm checked, Evaluation run) {
        var code = Compiler.compile(term, checked.slots());
        return code.run(code.frame(run));
    }

    private static Checked rejected(LogicCode code, Span span, String message) {
        return new Checked.Rejected(List.of(new Problem(code, span, message)));
    }
}
