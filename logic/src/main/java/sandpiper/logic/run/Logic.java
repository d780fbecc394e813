package sandpiper.logic.run;

import sandpiper.logic.value.Nothing;

/** Three-valued {@code and} and {@code or}, DMN 1.5 §10.3.2.10 (table 50). */
final class Logic {
    private Logic() {}

    /**
     * The operation over its parts. It stops at the first part that decides: nothing a part could
     * come to changes the result then.
     */
    static Op op(boolean isAnd, Op[] parts) {
        Boolean decisive = !isAnd;
        Boolean otherwise = isAnd;
        if (parts.length == 2) {
            return two(decisive, otherwise, parts[0], parts[1]);
        }
        return frame -> {
            boolean unknown = false;
            for (var part : parts) {
                var value = part.eval(frame);
                if (value == decisive) {
                    return decisive;
                }
                unknown |= value != otherwise;
            }
            return unknown ? Nothing.NULL : otherwise;
        };
    }

    private static Op two(Boolean decisive, Boolean otherwise, Op left, Op right) {
        return frame -> {
            var a = left.eval(frame);
            if (a == decisive) {
                return decisive;
            }
            var b = right.eval(frame);
            if (b == decisive) {
                return decisive;
            }
            return a == otherwise && b == otherwise ? otherwise : Nothing.NULL;
        };
    }
}
