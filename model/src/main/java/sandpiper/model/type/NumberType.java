package sandpiper.model.type;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Quoted;
import sandpiper.logic.type.LogicType;

/**
 * A number with a fixed count of decimal places, stored as a whole number without its point. A
 * percent of 19 is written and stored as 19.
 *
 * @param scale decimal places, 0 to 9
 * @param currency ISO 4217 code of an amount, or {@code null} for what is no amount
 */
public record NumberType(TypeKeyword keyword, int scale, @Nullable String currency)
        implements FieldType {
    /** Digits in all: what every JSON reader that works with doubles can keep. */
    public static final int DIGITS = 15;

    /** Whole numbers up to what a double keeps exactly, 2^53 - 1. */
    private static final long LARGEST_INTEGER = 9_007_199_254_740_991L;

    private static final long LARGEST_DECIMAL = 999_999_999_999_999L;

    /** A whole number. */
    public static NumberType integer() {
        return new NumberType(TypeKeyword.INTEGER, 0, null);
    }

    @Override
    public LogicType logicType() {
        return LogicType.Simple.NUMBER;
    }

    @Override
    public ParsedValue read(Object plain) {
        return switch (plain) {
            case BigDecimal number -> scaled(number);
            case Long number -> scaled(BigDecimal.valueOf(number));
            case Integer number -> scaled(BigDecimal.valueOf(number));
            default -> ParsedValue.wrongType("must be a number, but was " + TextType.shown(plain));
        };
    }

    @Override
    public ParsedValue readText(String text) {
        try {
            return text.length() > 40 ? notANumber(text) : scaled(new BigDecimal(text.strip()));
        } catch (NumberFormatException _) {
            return notANumber(text);
        }
    }

    private static ParsedValue notANumber(String text) {
        return ParsedValue.wrongType("must be a number, as in 12.5, but was " + Quoted.of(text));
    }

    private ParsedValue scaled(BigDecimal number) {
        // The first test keeps 1e999999999 from being written out in full.
        if (number.precision() - (long) number.scale() > 30) {
            return tooLarge();
        }
        var exact = number.stripTrailingZeros();
        if (exact.scale() > scale) {
            return new ParsedValue.Refused(
                    ValueCode.TOO_PRECISE,
                    scale == 0
                            ? "must be a whole number, but was " + shortly(number)
                            : "may have %d decimal place%s, but was %s"
                                    .formatted(scale, scale == 1 ? "" : "s", shortly(number)));
        }
        var unscaled = exact.setScale(scale).unscaledValue();
        if (unscaled.bitLength() > 62) {
            return tooLarge();
        }
        long value = unscaled.longValue();
        return Math.abs(value) <= largest() ? ParsedValue.taken(value) : tooLarge();
    }

    /** The largest value in its smallest units; the least is as far below 0. */
    public long largest() {
        return keyword == TypeKeyword.INTEGER ? LARGEST_INTEGER : LARGEST_DECIMAL;
    }

    private static String shortly(BigDecimal number) {
        var text = number.toString();
        return text.length() > 40 ? text.substring(0, 40) + "…" : text;
    }

    private ParsedValue tooLarge() {
        return new ParsedValue.Refused(
                ValueCode.OUT_OF_RANGE,
                keyword == TypeKeyword.INTEGER
                        ? "must lie between -%1$,d and %1$,d".formatted(LARGEST_INTEGER)
                        : "may have %d digits in all, %d of them behind the point"
                                .formatted(DIGITS, scale));
    }

    @Override
    public Object write(Object stored) {
        return keyword == TypeKeyword.INTEGER ? stored : BigDecimal.valueOf((Long) stored, scale);
    }

    @Override
    public Storage stores() {
        return Storage.INTEGER;
    }

    @Override
    public Map<String, Object> schema() {
        var schema = new LinkedHashMap<String, Object>();
        if (keyword == TypeKeyword.INTEGER) {
            schema.put("type", "integer");
            schema.put("format", "int64");
        } else {
            schema.put("type", "number");
            if (scale > 0) {
                schema.put("multipleOf", BigDecimal.ONE.movePointLeft(scale));
            }
        }
        return schema;
    }

    /** What a contract adds to the description: the unit. */
    public String unit() {
        return switch (keyword) {
            case PERCENT -> "In percent: 19 means 19 %.";
            case AMOUNT -> currency == null ? "" : "In " + currency + ".";
            default -> "";
        };
    }

    @Override
    public Object example() {
        return keyword == TypeKeyword.INTEGER ? (Object) 3L : new BigDecimal("12").setScale(scale);
    }
}
