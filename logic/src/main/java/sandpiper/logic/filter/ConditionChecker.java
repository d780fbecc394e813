package sandpiper.logic.filter;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.condition.Operand;
import sandpiper.logic.condition.Selections;
import sandpiper.logic.condition.SortKey;
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
        return prepare(text, record).bind(clock);
    }

    /** Does the part that is the same whenever the condition is asked for. */
    static PreparedCondition prepare(String text, RecordType record) {
        var checked = Checker.condition(text, NameContext.of(World.EMPTY, record));
        if (!checked.isAccepted()) {
            return PreparedCondition.rejected(
                    checked.problems().stream().filter(LogicProblem::isError).toList());
        }
        var item =
                new Term.Local(
                        NameContext.THIS, "this", new LogicType.RecordOf(record), new Span(0, 0));
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
        return PreparedCondition.accepted(selections.get(), checked.slots(), checked.term().span());
    }

    /** What to put records in order by, or nothing when a store cannot work it out. */
    public static Optional<Operand> sortKey(RecordType record, List<String> path, Clock clock) {
        return SortKey.of(record, path)
                .map(key ->
                        key.bind(
                                PreparedCondition.values(
                                        PreparedCondition.codes(key.values(), 1), clock),
                                clock.getZone()));
    }

    private static PreparedCondition rejected(LogicCode code, Span span, String message) {
        return PreparedCondition.rejected(List.of(new LogicProblem(code, span, message)));
    }
}
