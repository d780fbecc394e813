package sandpiper.server.json;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.TokenStreamLocation;

/**
 * Reads JSON (RFC 8259) into plain values: maps, lists, text, {@link Long}, {@link BigDecimal},
 * booleans. Numbers stay exact. What comes from outside is bounded in size and depth.
 */
public final class JsonReader {
    /** For texts that the service wrote itself. */
    public static final JsonReader OWN =
            new JsonReader(new Bounds(Integer.MAX_VALUE - 1, 1_000, 1));

    private static final int LARGEST_EXPONENT = 400;

    private final Bounds bounds;

    public JsonReader(Bounds bounds) {
        this.bounds = bounds;
    }

    /** How much may be brought and asked for. */
    public Bounds bounds() {
        return bounds;
    }

    /** All bytes of a body, or a problem when there are too many. */
    public byte[] bytes(InputStream body) {
        try {
            int largest = bounds.body();
            var bytes = body.readNBytes(largest + 1);
            if (bytes.length > largest) {
                throw new ProblemException(
                        HttpStatus.CONTENT_TOO_LARGE,
                        "The body may have %,d bytes; send larger amounts in several requests."
                                .formatted(largest));
            }
            return bytes;
        } catch (IOException e) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, "The body could not be read to its end.", e);
        }
    }

    /** A body that must be an object. */
    public Map<String, @Nullable Object> object(byte[] body) {
        var value = value(body);
        if (value instanceof Map<?, ?> map) {
            var object = new LinkedHashMap<String, @Nullable Object>();
            map.forEach((key, member) -> object.put(String.valueOf(key), member));
            return object;
        }
        throw new ProblemException(
                HttpStatus.BAD_REQUEST,
                "The body must be a JSON object, as in {\"name\": \"Sea Pink\"}.");
    }

    /** A body that may be anything. */
    public @Nullable Object any(byte[] body) {
        return value(body);
    }

    private @Nullable Object value(byte[] body) {
        if (body.length == 0) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, "The body is empty; it must be a JSON object.");
        }
        try (var parser =
                bounds.format().createParser(tools.jackson.core.ObjectReadContext.empty(), body)) {
            parser.nextToken();
            var value = value(parser);
            if (parser.nextToken() != null) {
                throw at(parser.currentTokenLocation(), "something stands behind its end");
            }
            return value;
        } catch (JacksonException e) {
            throw at(e.getLocation(), e.getOriginalMessage());
        }
    }

    private static ProblemException at(@Nullable TokenStreamLocation place, String what) {
        var where =
                place == null
                        ? ""
                        : " at line %d, column %d"
                                .formatted(place.getLineNr(), place.getColumnNr());
        var words =
                what.contains("nesting depth")
                        ? "objects and lists lie too deep in each other"
                        : what.contains("value length") || what.contains("Number value")
                                ? "a value is too long"
                                : plain(what);
        return new ProblemException(
                HttpStatus.BAD_REQUEST, "The body is not JSON%s: %s.".formatted(where, words));
    }

    private static String plain(String what) {
        return what.lines()
                .findFirst()
                .orElse("")
                .replaceAll("\\(`?[A-Za-z.]*`?[^)]*\\)", "")
                .strip();
    }

    private static @Nullable Object value(JsonParser parser) {
        var token = parser.currentToken();
        if (token == null) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, "The body is empty; it must be a JSON object.");
        }
        return switch (token) {
            case START_OBJECT -> members(parser);
            case START_ARRAY -> items(parser);
            case VALUE_STRING -> parser.getString();
            case VALUE_NUMBER_INT -> whole(parser);
            case VALUE_NUMBER_FLOAT -> decimal(parser);
            case VALUE_TRUE -> true;
            case VALUE_FALSE -> false;
            default -> null;
        };
    }

    /** A number of an honest size: a short text must not become a long one when it is written. */
    private static BigDecimal decimal(JsonParser parser) {
        try {
            var number = parser.getDecimalValue();
            if (Math.abs((long) number.scale()) <= LARGEST_EXPONENT) {
                return number;
            }
        } catch (NumberFormatException _) {
            // said below
        }
        throw at(parser.currentTokenLocation(), "a number is too large or too small");
    }

    private static Object whole(JsonParser parser) {
        var number = parser.getBigIntegerValue();
        return number.bitLength() < Long.SIZE
                ? (Object) number.longValue()
                : new BigDecimal(number);
    }

    private static Map<String, @Nullable Object> members(JsonParser parser) {
        var members = new LinkedHashMap<String, @Nullable Object>();
        for (var name = parser.nextName(); name != null; name = parser.nextName()) {
            parser.nextToken();
            members.put(name, value(parser));
        }
        return members;
    }

    private static List<@Nullable Object> items(JsonParser parser) {
        var items = new ArrayList<@Nullable Object>();
        while (parser.nextToken() != tools.jackson.core.JsonToken.END_ARRAY) {
            items.add(value(parser));
        }
        return items;
    }
}
