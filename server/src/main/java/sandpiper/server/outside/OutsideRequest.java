package sandpiper.server.outside;

import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.model.connection.OutsideOperation;

/**
 * A request to a service outside.
 *
 * @param headers without credentials
 * @param body values under names, or {@code null} for none
 */
record OutsideRequest(
        String method,
        URI address,
        Map<String, String> headers,
        @Nullable Map<String, Object> body) {
    /**
     * The request of an operation.
     *
     * @param base the address of the service
     * @param values those of the operation's parameters, in their order; {@code null} for one that
     *     is left out
     * @throws IllegalArgumentException when a value cannot be sent, saying why
     */
    static OutsideRequest of(
            OutsideOperation operation, String base, List<@Nullable Object> values) {
        var path = operation.path();
        var query = new ArrayList<String>();
        var headers = new LinkedHashMap<String, String>();
        var body = new LinkedHashMap<String, Object>();
        for (int i = 0; i < operation.places().size(); i++) {
            var name = operation.places().get(i).parameter();
            var value = i < values.size() ? values.get(i) : null;
            switch (operation.places().get(i).where()) {
                case PATH -> path = path.replace("{" + name + "}", inPath(name, value));
                case QUERY -> {
                    if (value != null) {
                        query.add(encoded(name) + "=" + encoded(text(value)));
                    }
                }
                case HEADER -> {
                    if (value != null) {
                        headers.put(name, inHeader(name, text(value)));
                    }
                }
                case BODY -> {
                    if (value != null) {
                        body.put(name, value);
                    }
                }
            }
        }
        var whole = base.replaceFirst("/+$", "") + path;
        return new OutsideRequest(
                operation.method(),
                URI.create(query.isEmpty() ? whole : whole + "?" + String.join("&", query)),
                headers,
                body.isEmpty() ? null : body);
    }

    private static String inPath(String name, @Nullable Object value) {
        var text = value == null ? "" : text(value);
        // Dots alone would lead to another place of the service.
        if (text.isEmpty() || text.equals(".") || text.equals("..")) {
            throw new IllegalArgumentException(
                    "%s must have a value that can stand in an address.".formatted(name));
        }
        return encoded(text);
    }

    private static String inHeader(String name, String text) {
        if (!text.chars().allMatch(c -> c >= ' ' && c < 127)) {
            throw new IllegalArgumentException(
                    "%s has a character that cannot be sent in a header.".formatted(name));
        }
        return text;
    }

    private static String text(Object value) {
        return value instanceof java.math.BigDecimal number
                ? number.toPlainString()
                : String.valueOf(value);
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }
}
