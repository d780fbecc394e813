package sandpiper.server.odata.request;

import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.commons.api.http.HttpMethod;
import org.apache.olingo.server.api.ODataRequest;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import sandpiper.server.json.JsonType;
import sandpiper.server.problem.ProblemException;

/** Entities are sent in JSON, and in nothing else; a batch has a form of its own. */
final class BodyTypes {
    private BodyTypes() {}

    /**
     * A file is of any type, and is answered as what it is whatever the client would rather have.
     */
    static void ofFile(ODataRequest request) {
        request.setHeader(HttpHeader.ACCEPT, MediaType.ALL_VALUE);
        if (request.getHeader(HttpHeader.CONTENT_TYPE) == null) {
            request.setHeader(HttpHeader.CONTENT_TYPE, MediaType.APPLICATION_OCTET_STREAM_VALUE);
        }
    }

    static void require(ODataRequest request) {
        var method = request.getMethod();
        var given = request.getHeader(HttpHeader.CONTENT_TYPE);
        if (given == null
                || method == HttpMethod.GET
                || method == HttpMethod.DELETE
                || request.getRawODataPath().equals("/$batch")) {
            return;
        }
        var type = JsonType.read(given);
        if (type == null
                || !type.equalsTypeAndSubtype(MediaType.APPLICATION_JSON)
                || !JsonType.isUtf8(type)) {
            throw new ProblemException(
                    HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                    "Send JSON in UTF-8, with Content-Type: application/json.");
        }
    }
}
