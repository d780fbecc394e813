package sandpiper.server.json;

import org.jspecify.annotations.Nullable;
import org.springframework.http.InvalidMediaTypeException;
import org.springframework.http.MediaType;

/** What a content type says of JSON that was sent. */
public final class JsonType {
    private JsonType() {}

    /** {@code null} when there is none, or what stands there is no media type. */
    public static @Nullable MediaType read(@Nullable String contentType) {
        try {
            return contentType == null ? null : MediaType.parseMediaType(contentType);
        } catch (InvalidMediaTypeException _) {
            return null;
        }
    }

    /** JSON is sent in UTF-8 (RFC 8259, section 8.1); a type that says nothing of it agrees. */
    public static boolean isUtf8(MediaType type) {
        var charset = type.getParameter("charset");
        return charset == null || charset.replace("\"", "").equalsIgnoreCase("utf-8");
    }
}
