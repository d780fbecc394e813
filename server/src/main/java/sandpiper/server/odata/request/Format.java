package sandpiper.server.odata.request;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.Map;
import org.apache.olingo.commons.api.format.ContentType;
import org.jspecify.annotations.Nullable;

/**
 * How JSON was asked for (OData JSON Format 4.01, 3.1).
 *
 * @param numbersAsText whether large and decimal numbers are texts, for clients that would lose
 *     digits
 */
public record Format(Metadata metadata, boolean numbersAsText) {

    /** How much an answer says about itself. */
    public enum Metadata {
        NONE,
        MINIMAL,
        FULL
    }

    /** As a content type says it. */
    public static Format of(ContentType type) {
        var wanted = type.getParameter("odata.metadata");
        if (wanted == null) {
            wanted = type.getParameter("metadata");
        }
        var numbers = type.getParameter("IEEE754Compatible");
        return new Format(
                "none".equals(wanted)
                        ? Metadata.NONE
                        : "full".equals(wanted) ? Metadata.FULL : Metadata.MINIMAL,
                "true".equals(numbers));
    }

    /** Whether everything is said that can be. */
    public boolean isFull() {
        return metadata == Metadata.FULL;
    }

    /** Whether anything is said besides the values. */
    public boolean annotates() {
        return metadata != Metadata.NONE;
    }

    /** A whole number as it was asked for. */
    public Object number(long number) {
        return numbersAsText ? Long.toString(number) : number;
    }

    /** A plain value, with its numbers as they were asked for. */
    public @Nullable Object value(@Nullable Object plain) {
        if (!numbersAsText) {
            return plain;
        }
        return switch (plain) {
            case BigDecimal number -> number.toPlainString();
            case Long number -> number.toString();
            case Map<?, ?> members -> {
                var written = new LinkedHashMap<String, @Nullable Object>();
                members.forEach((name, member) -> written.put(String.valueOf(name), value(member)));
                yield written;
            }
            case null -> null;
            default -> plain;
        };
    }
}
