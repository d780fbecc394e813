package sandpiper.server.odata;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.apache.olingo.commons.api.format.ContentType;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.server.api.ODataResponse;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.server.json.JsonText;

/** Fills in responses. */
public final class ODataResponses {
    private ODataResponses() {}

    static void json(
            ODataResponse response,
            HttpStatus status,
            ContentType type,
            Map<String, @Nullable Object> body) {
        text(response, status, type, JsonText.write(body));
    }

    static void text(ODataResponse response, HttpStatus status, ContentType type, String body) {
        bytes(response, status, type, body.getBytes(StandardCharsets.UTF_8));
    }

    static void bytes(ODataResponse response, HttpStatus status, ContentType type, byte[] body) {
        response.setStatusCode(status.value());
        response.setHeader(HttpHeader.CONTENT_TYPE, type.toContentTypeString());
        response.setContent(new ByteArrayInputStream(body));
    }

    static void empty(ODataResponse response, HttpStatus status) {
        response.setStatusCode(status.value());
    }
}
