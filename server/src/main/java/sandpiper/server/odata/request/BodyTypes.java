package sandpiper.server.odata.request;

import java.util.Locale;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.commons.api.http.HttpMethod;
import org.apache.olingo.server.api.ODataRequest;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;

/** Entities are sent in JSON, and in nothing else; a batch has a form of its own. */
final class BodyTypes {
    private BodyTypes() {}

    static void require(ODataRequest request) {
        var method = request.getMethod();
        var type = request.getHeader(HttpHeader.CONTENT_TYPE);
        if (type == null
                || method == HttpMethod.GET
                || method == HttpMethod.DELETE
                || request.getRawODataPath().equals("/$batch")) {
            return;
        }
        var given = type.toLowerCase(Locale.ROOT);
        boolean isUtf8 = !given.contains("charset=") || given.contains("utf-8");
        if (!given.strip().startsWith("application/json") || !isUtf8) {
            throw new ProblemException(
                    HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                    "Send JSON in UTF-8, with Content-Type: application/json.");
        }
    }
}
