package sandpiper.server.json;

import java.math.BigDecimal;

/**
 * Numbers from outside: of an honest size, since reading many digits takes time with their square,
 * and a small text with a large exponent becomes a large one.
 */
public final class NumberText {
    private static final int LONGEST = 100;
    private static final int LARGEST_EXPONENT = 400;

    private NumberText() {}

    /**
     * The number of a text.
     *
     * @throws NumberFormatException when it is none, or out of all proportion; the message says so
     */
    public static BigDecimal read(String text) {
        if (text.length() > LONGEST) {
            throw new NumberFormatException(
                    "a number of %,d characters is too long".formatted(text.length()));
        }
        var number = new BigDecimal(text);
        if (Math.abs((long) number.scale()) > LARGEST_EXPONENT) {
            throw new NumberFormatException("a number is too large or too small");
        }
        return number;
    }
}
