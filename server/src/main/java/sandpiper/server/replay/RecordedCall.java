package sandpiper.server.replay;

import java.time.Instant;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.server.json.JsonText;

/**
 * A call of a service as it came, without what its caller proves itself with.
 *
 * @param title what was called, as {@code berth-desk v1 stays create, REST}
 * @param client who called
 * @param target the address from the root of the service, with what follows the question mark
 * @param headers those that change what is answered
 */
record RecordedCall(
        Instant at,
        String title,
        String client,
        String method,
        String target,
        Map<String, String> headers,
        byte[] body) {
    /** One line of a file. */
    String line() {
        var values = new LinkedHashMap<String, Object>();
        values.put("at", at.toString());
        values.put("title", title);
        values.put("client", client);
        values.put("method", method);
        values.put("target", target);
        values.put("headers", headers);
        values.put("body", Base64.getEncoder().encodeToString(body));
        return JsonText.write(values);
    }

    /** Of a line that was read. */
    static RecordedCall of(Map<String, @Nullable Object> values) {
        var headers = new LinkedHashMap<String, String>();
        if (values.get("headers") instanceof Map<?, ?> kept) {
            kept.forEach((name, value) -> headers.put(String.valueOf(name), String.valueOf(value)));
        }
        return new RecordedCall(
                Instant.parse(text(values, "at")),
                text(values, "title"),
                text(values, "client"),
                text(values, "method"),
                text(values, "target"),
                headers,
                Base64.getDecoder().decode(text(values, "body")));
    }

    private static String text(Map<String, @Nullable Object> values, String name) {
        return String.valueOf(values.get(name));
    }
}
