package sandpiper.logic.run;

import java.util.List;
import sandpiper.logic.type.Member;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.Values;

/**
 * What single steps come to, the same for a tree of functions and for a {@link GeneratedClass}.
 *
 * <p>What is usual is told apart first and by little code, so that the JVM takes it into whatever
 * calls it; the rest is a call.
 */
final class Steps {
    private Steps() {}

    /** A member of what should be a record. */
    static Object read(Object source, Member member) {
        return source instanceof RecordValue record ? record.read(member) : Nothing.NULL;
    }

    static Object equal(Object a, Object b) {
        return a instanceof Decimal x && b instanceof Decimal y
                ? (Object) (x.compareTo(y) == 0)
                : Values.equal(a, b);
    }

    /** Whether one value lies before or behind another; null when they have no order. */
    static Object ordered(Object a, Object b, boolean below, boolean orEqual, Evaluation run) {
        if (a instanceof Decimal x && b instanceof Decimal y) {
            int order = x.compareTo(y);
            return order == 0 ? orEqual : below == (order < 0);
        }
        return orderOfAny(a, b, below, orEqual, run);
    }

    private static Object orderOfAny(
            Object a, Object b, boolean below, boolean orEqual, Evaluation run) {
        var order = Values.order(a, b);
        if (order == null) {
            if (a != Nothing.NULL && b != Nothing.NULL) {
                run.note(
                        "%s and %s have no order between them."
                                .formatted(Values.kind(a), Values.kind(b)));
            }
            return Nothing.NULL;
        }
        return order == 0 ? orEqual : below == (order < 0);
    }

    static Object not(Object value, Evaluation run) {
        return value instanceof Boolean flag ? (Object) !flag : notOfAny(value, run);
    }

    private static Object notOfAny(Object value, Evaluation run) {
        if (value instanceof List<?> list
                && list.size() == 1
                && list.getFirst() instanceof Boolean flag) {
            return !flag;
        }
        run.note("not: negand must be true or false, but is " + Values.kind(value) + ".");
        return Nothing.NULL;
    }

    /** True for false and false for true; null for anything else. */
    static Object opposite(Object value) {
        return value instanceof Boolean flag ? (Object) !flag : Nothing.NULL;
    }
}
