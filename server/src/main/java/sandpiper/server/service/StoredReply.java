package sandpiper.server.service;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import sandpiper.server.json.JsonReader;
import sandpiper.server.json.JsonText;

/**
 * What a change is answered with, in a form that can be kept and given again.
 *
 * @param location where the record is read, or {@code null} when it cannot be
 * @param tag the version of the record, or {@code null} when it is about none
 * @param body JSON
 */
public record StoredReply(
        int status, @Nullable String location, @Nullable String tag, String body) {
    /** The header that says that an answer was given before. */
    public static final String REPLAYED = "Idempotent-Replayed";

    /** Answers in this form: how each is made is the protocol's own. */
    public interface Form extends AnswerForm<StoredReply> {
        @Override
        default String write(StoredReply answer) {
            return answer.write();
        }

        @Override
        default StoredReply read(String kept) {
            return StoredReply.read(kept);
        }
    }

    /** As text, to be kept. */
    public String write() {
        var plain = new LinkedHashMap<String, Object>();
        plain.put("status", (long) status);
        if (location != null) {
            plain.put("location", location);
        }
        if (tag != null) {
            plain.put("tag", tag);
        }
        plain.put("body", body);
        return JsonText.write(plain);
    }

    /** From the text it was kept as. */
    public static StoredReply read(String text) {
        Map<String, @Nullable Object> plain =
                JsonReader.OWN.object(text.getBytes(java.nio.charset.StandardCharsets.UTF_8));
        return new StoredReply(
                ((Long) java.util.Objects.requireNonNull(plain.get("status"))).intValue(),
                (String) plain.get("location"),
                (String) plain.get("tag"),
                String.valueOf(plain.get("body")));
    }

    /** The headers that go with it. */
    public Map<String, String> headers() {
        var headers = new LinkedHashMap<String, String>();
        headers.put(HttpHeaders.CONTENT_TYPE, "application/json");
        if (tag != null) {
            headers.put(HttpHeaders.ETAG, tag);
        }
        if (location != null) {
            headers.put(HttpHeaders.LOCATION, location);
        }
        return headers;
    }
}
