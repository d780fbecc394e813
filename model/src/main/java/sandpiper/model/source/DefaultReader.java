package sandpiper.model.source;

import java.math.BigDecimal;
import org.jspecify.annotations.Nullable;
import sandpiper.model.DefinitionCode;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.ParsedValue;
import sandpiper.model.type.TypeKeyword;

/** Reads the value that something has without being given one: a default, a preset. */
public final class DefaultReader {
    private DefaultReader() {}

    /**
     * The value a text stands for, or {@code null} after saying why it is none.
     *
     * @param what how messages call it: "default"
     */
    public static @Nullable DefaultValue read(
            Source source, String what, FieldType type, String text, String... place) {
        if (type.keyword() == TypeKeyword.DATE && text.equals("today()")) {
            return new DefaultValue.Today();
        }
        if (type.keyword() == TypeKeyword.DATE_TIME && text.equals("now()")) {
            return new DefaultValue.Now();
        }
        if (type instanceof FieldType.Reference) {
            source.error(
                    DefinitionCode.BAD_DEFAULT,
                    "A reference cannot have a %s.".formatted(what),
                    null,
                    place);
            return null;
        }
        return switch (type.readText(text)) {
            case ParsedValue.Taken(var value) -> {
                warnOfShare(source, what, type, text, place);
                yield new DefaultValue.Fixed(value, text);
            }
            case ParsedValue.Refused refused -> {
                source.error(
                        DefinitionCode.BAD_DEFAULT,
                        "The %s %s.".formatted(what, refused.message()),
                        null,
                        place);
                yield null;
            }
        };
    }

    /** Who writes 0.19 for a percent may have meant the share that 19 % is. */
    private static void warnOfShare(
            Source source, String what, FieldType type, String text, String... place) {
        if (type.keyword() != TypeKeyword.PERCENT) {
            return;
        }
        var number = new BigDecimal(text.strip());
        if (number.signum() > 0 && number.compareTo(BigDecimal.ONE) < 0) {
            var hundredfold = number.movePointRight(2).stripTrailingZeros().toPlainString();
            source.warn(
                    DefinitionCode.BAD_DEFAULT,
                    "The %s %s means %s %%; write %s for %s %%."
                            .formatted(what, text, text, hundredfold, hundredfold),
                    place);
        }
    }
}
