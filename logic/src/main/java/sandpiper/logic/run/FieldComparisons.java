package sandpiper.logic.run;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.Member;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.Values;

/**
 * Comparisons of a field with a fixed value, which are most of what rules ask, each as one step
 * instead of three. They come to the same as any comparison.
 */
final class FieldComparisons {
    private FieldComparisons() {}

    /** The comparison as one step, or {@code null} when it is another. */
    static @Nullable Op of(Term.Compare compare) {
        if (!(compare.left() instanceof Term.Read(Term.Local(int slot, _, _, _), var member, _))
                || !(compare.right() instanceof Term.Constant constant)) {
            return null;
        }
        return switch (constant.value()) {
            case String text when compare.operator() == Operator.EQUAL ->
                    isText(slot, member, text, true);
            case String text when compare.operator() == Operator.NOT_EQUAL ->
                    isText(slot, member, text, false);
            case Decimal number when compare.operator() == Operator.EQUAL ->
                    isNumber(slot, member, number);
            case Decimal number when compare.operator() != Operator.NOT_EQUAL ->
                    ordered(slot, member, compare.operator(), number);
            default -> null;
        };
    }

    private static Object read(Frame frame, int slot, Member member) {
        return frame.get(slot) instanceof RecordValue record ? record.read(member) : Nothing.NULL;
    }

    private static Op isText(int slot, Member member, String text, boolean wanted) {
        return frame -> {
            var value = read(frame, slot, member);
            if (value instanceof String read) {
                return text.equals(read) == wanted;
            }
            return Values.equal(value, text) instanceof Boolean same
                    ? (Object) (same == wanted)
                    : Nothing.NULL;
        };
    }

    private static Op isNumber(int slot, Member member, Decimal number) {
        return frame -> {
            var value = read(frame, slot, member);
            return value instanceof Decimal read
                    ? (Object) (read.compareTo(number) == 0)
                    : Values.equal(value, number);
        };
    }

    private static Op ordered(int slot, Member member, Operator operator, Decimal number) {
        boolean below = operator == Operator.LESS || operator == Operator.LESS_OR_EQUAL;
        boolean orEqual =
                operator == Operator.LESS_OR_EQUAL || operator == Operator.GREATER_OR_EQUAL;
        return frame -> {
            var value = read(frame, slot, member);
            if (value instanceof Decimal read) {
                int order = read.compareTo(number);
                return order == 0 ? orEqual : below == (order < 0);
            }
            return Compiler.order(value, number, below, orEqual, frame);
        };
    }
}
