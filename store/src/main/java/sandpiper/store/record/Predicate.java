package sandpiper.store.record;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.syntax.Operator;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/** A condition in terms of columns and stored values. */
sealed interface Predicate {
    record All(List<Predicate> parts) implements Predicate {}

    record Any(List<Predicate> parts) implements Predicate {}

    record Not(Predicate inner) implements Predicate {}

    /** Whatever the row. */
    record Always(boolean truth) implements Predicate {}

    /** Neither true nor false, whatever the row. */
    record Unknown() implements Predicate {}

    /** Two values of one scale. */
    record Compare(Scalar left, Operator operator, Scalar right) implements Predicate {}

    /** Neither true nor false when it is empty. */
    record Holds(Scalar flag) implements Predicate {}

    record Empty(Scalar scalar) implements Predicate {}

    /**
     * Whether a reference leads to a record that meets a condition; false when it is empty. Those
     * that meet it are listed once.
     */
    record Among(ColumnRef reference, ObjectType object, Predicate condition)
            implements Predicate {}

    /**
     * Whether a condition about line items of the row holds for some of them, or for all; unknown
     * where it hangs on one of which it is unknown.
     */
    record OverItems(ObjectType object, Part part, boolean isEvery, Predicate condition)
            implements Predicate {}

    record Match(Scalar within, Condition.TextMatch.Place place, String text)
            implements Predicate {}

    /**
     * Whether a text is like a pattern, in which {@code !} stands before what is meant literally.
     */
    record Like(Scalar within, String pattern) implements Predicate {}

    /** The shape without its values: two predicates of one shape come to the same SQL. */
    default void shape(StringBuilder into) {
        switch (this) {
            case All(var parts) -> shape(into, "&", parts);
            case Any(var parts) -> shape(into, "|", parts);
            case Not(var inner) -> shape(into, "!", List.of(inner));
            case Always(var truth) -> into.append(truth ? 'T' : 'F');
            case Unknown _ -> into.append('U');
            case Compare(var left, var operator, var right) -> {
                left.shape(into);
                into.append(operator.symbol());
                right.shape(into);
            }
            case Holds(var flag) -> flag.shape(into.append('='));
            case Empty(var scalar) -> scalar.shape(into.append("0="));
            case Among(var reference, var object, var condition) ->
                    condition.shape(
                            into.append(reference.path()).append('@').append(object.name()));
            case OverItems(_, var part, var isEvery, var condition) ->
                    condition.shape(into.append(isEvery ? '*' : '+').append(part.name()));
            case Like(var within, _) -> within.shape(into.append('~'));
            case Match(var within, var place, _) -> {
                within.shape(into);
                into.append(place);
            }
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
            case Always _, Unknown _ -> {
                // no values
            }
            case Compare(var left, _, var right) -> {
                left.values(into);
                right.values(into);
            }
            case Holds(var flag) -> flag.values(into);
            case Empty(var scalar) -> scalar.values(into);
            case Among(_, _, var condition) -> condition.values(into);
            case OverItems(_, _, _, var condition) -> condition.values(into);
            case Like(var within, var pattern) -> {
                within.values(into);
                into.add(pattern);
            }
            case Match match -> {
                match.within().values(into);
                if (match.place() == Condition.TextMatch.Place.END) {
                    match.within().values(into);
                }
                into.add(match.text());
                if (match.place() != Condition.TextMatch.Place.ANYWHERE) {
                    into.add(match.text());
                }
            }
        }
    }
}
