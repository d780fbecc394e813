package sandpiper.store.record;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.syntax.Operator;

/** A condition in terms of columns and stored values. */
sealed interface Predicate {
    record All(List<Predicate> parts) implements Predicate {}

    record Any(List<Predicate> parts) implements Predicate {}

    record Not(Predicate inner) implements Predicate {}

    /** Whatever the row. */
    record Always(boolean truth) implements Predicate {}

    /** Neither true nor false, whatever the row. */
    record Unknown() implements Predicate {}

    record Compare(ColumnRef column, Operator operator, Object value) implements Predicate {}

    /** Two columns; numbers of different scale are brought to one by the factors. */
    record CompareColumns(
            ColumnRef left, long leftFactor, Operator operator, ColumnRef right, long rightFactor)
            implements Predicate {}

    record Empty(ColumnRef column) implements Predicate {}

    record Match(ColumnRef column, Condition.TextMatch.Place place, String text)
            implements Predicate {}

    /** The shape without its values: two predicates of one shape come to the same SQL. */
    default void shape(StringBuilder into) {
        switch (this) {
            case All(var parts) -> shape(into, "&", parts);
            case Any(var parts) -> shape(into, "|", parts);
            case Not(var inner) -> shape(into, "!", List.of(inner));
            case Always(var truth) -> into.append(truth ? 'T' : 'F');
            case Unknown _ -> into.append('U');
            case Compare(var column, var operator, _) ->
                    into.append(column.path()).append(operator.symbol()).append('?');
            case CompareColumns(
                            var left,
                            var leftFactor,
                            var operator,
                            var right,
                            var rightFactor) ->
                    into.append(left.path())
                            .append('*')
                            .append(leftFactor)
                            .append(operator.symbol())
                            .append(right.path())
                            .append('*')
                            .append(rightFactor);
            case Empty(var column) -> into.append(column.path()).append("=0");
            case Match(var column, var place, _) -> into.append(column.path()).append(place);
        }
    }

    private static void shape(StringBuilder into, String sign, List<Predicate> parts) {
        into.append(sign).append('(');
        for (var part : parts) {
            part.shape(into);
            into.append(' ');
        }
        into.append(')');
    }

    /** The values in the order in which they stand in the SQL. */
    default void values(List<@Nullable Object> into) {
        switch (this) {
            case All(var parts) -> parts.forEach(part -> part.values(into));
            case Any(var parts) -> parts.forEach(part -> part.values(into));
            case Not(var inner) -> inner.values(into);
            case Always _, Unknown _, CompareColumns _, Empty _ -> {
                // no values
            }
            case Compare compare -> into.add(compare.value());
            case Match match -> {
                into.add(match.text());
                if (match.place() != Condition.TextMatch.Place.ANYWHERE) {
                    into.add(match.text());
                }
            }
        }
    }
}
