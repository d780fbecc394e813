package sandpiper.store.record;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.Rounding;
import sandpiper.model.release.ObjectType;

/** A value of each row: a column, or something SQL works out. Numbers are whole, scaled. */
sealed interface Scalar {
    record Column(ColumnRef ref) implements Scalar {}

    /** A value that is the same for all rows, {@code null} for none. */
    record Bound(@Nullable Object value) implements Scalar {}

    /**
     * The number of the record with this in a column that is unique, or one that no record has. It
     * is looked up once, and not for each row.
     */
    record Keyed(ObjectType object, String column, Object value) implements Scalar {}

    /** 1, 0 or nothing. */
    record Truth(Predicate predicate) implements Scalar {}

    /** {@code sign} is +, - or *. */
    record Arithmetic(char sign, Scalar left, Scalar right) implements Scalar {}

    /** Brought to more decimal places, or to another unit. */
    record Times(Scalar scalar, long factor) implements Scalar {}

    /** Whole units of so many, towards 0. */
    record Whole(Scalar scalar, long divisor) implements Scalar {}

    /** A piece of a day counted from 1970-01-01, in the letter of {@code strftime}. */
    record DatePiece(Scalar day, char letter) implements Scalar {}

    /** A text in small or capital letters. */
    record Letters(Scalar text, boolean capital) implements Scalar {}

    /** The characters of a text. */
    record Length(Scalar text) implements Scalar {}

    record Choice(Predicate when, Scalar then, Scalar otherwise) implements Scalar {}

    /** Rounded by a divisor, and nothing when larger than a field can hold. */
    record Fitted(Scalar scalar, long divisor, Rounding rounding, long largest) implements Scalar {}

    /**
     * A total over the rows of another table.
     *
     * @param value what is added up or compared, or {@code null} to count rows
     * @param link what in those rows must be {@code owner}, or {@code null} for all rows
     */
    record Total(
            String function,
            ObjectType object,
            @Nullable Scalar value,
            @Nullable ColumnRef link,
            ColumnRef owner,
            @Nullable Predicate where)
            implements Scalar {}

    /** The shape without its values: two of one shape come to the same SQL. */
    default void shape(StringBuilder into) {
        switch (this) {
            case Column(var ref) -> into.append(ref.path());
            case Bound(var value) ->
                    into.append(value == null ? 'n' : value instanceof String ? 't' : '?');
            case Keyed(var object, var column, _) ->
                    into.append('k').append(object.name()).append('.').append(column);
            case Truth(var predicate) -> predicate.shape(into);
            case Arithmetic(char sign, var left, var right) ->
                    shape(into, Character.toString(sign), List.of(left, right));
            case Times(var scalar, long factor) -> shape(into, "x" + factor, List.of(scalar));
            case Whole(var scalar, long divisor) -> shape(into, "w" + divisor, List.of(scalar));
            case DatePiece(var day, char letter) -> shape(into, "p" + letter, List.of(day));
            case Letters(var text, boolean capital) ->
                    shape(into, capital ? "upper" : "lower", List.of(text));
            case Length(var text) -> shape(into, "length", List.of(text));
            case Choice(var when, var then, var otherwise) -> {
                when.shape(into);
                shape(into, "if", List.of(then, otherwise));
            }
            case Fitted(var scalar, long divisor, var rounding, long largest) ->
                    shape(into, "f" + divisor + rounding + largest, List.of(scalar));
            case Total total -> {
                into.append(total.function()).append(total.object().name());
                into.append(total.link() == null ? "" : total.link().path());
                into.append('=').append(total.owner().path());
                if (total.value() != null) {
                    total.value().shape(into);
                }
                if (total.where() != null) {
                    total.where().shape(into);
                }
            }
        }
    }

    private static void shape(StringBuilder into, String sign, List<Scalar> inner) {
        into.append(sign).append('(');
        inner.forEach(one -> {
            one.shape(into);
            into.append(' ');
        });
        into.append(')');
    }

    /** The values in the order in which they stand in the SQL. */
    default void values(List<@Nullable Object> into) {
        switch (this) {
            case Column _ -> {
                // no values
            }
            case Bound(var value) -> into.add(value);
            case Keyed(_, _, var value) -> into.add(value);
            case Truth(var predicate) -> predicate.values(into);
            case Arithmetic(_, var left, var right) -> {
                left.values(into);
                right.values(into);
            }
            case Times(var scalar, _) -> scalar.values(into);
            case Whole(var scalar, _) -> scalar.values(into);
            case DatePiece(var day, _) -> day.values(into);
            case Letters(var text, _) -> text.values(into);
            case Length(var text) -> text.values(into);
            case Choice(var when, var then, var otherwise) -> {
                when.values(into);
                then.values(into);
                otherwise.values(into);
            }
            case Fitted(var scalar, _, _, _) -> scalar.values(into);
            case Total total -> {
                if (total.value() != null) {
                    total.value().values(into);
                }
                if (total.where() != null) {
                    total.where().values(into);
                }
            }
        }
    }
}
