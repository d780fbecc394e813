package sandpiper.server.intake;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.http.HttpHeaders;

/**
 * Says that a connection ends with an answer. In HTTP/2 only the stream ends, and a client turns
 * away an answer that says more (RFC 9113, section 8.2.2).
 */
final class LastAnswer {
    private LastAnswer() {}

    static void say(HttpServletRequest request, HttpServletResponse response) {
        if (endsConnection(request)) {
            response.setHeader(HttpHeaders.CONNECTION, "close");
        }
    }

    /** Whether an answer can end the connection of a request, not only its stream. */
    static boolean endsConnection(HttpServletRequest request) {
        return request.getProtocol().startsWith("HTTP/1");
    }
}
