package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import sandpiper.engine.command.Outcome;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.Problem;
import sandpiper.server.service.StoredReply;
import sandpiper.server.service.Traced;
import sandpiper.server.traffic.CallNotes;

/**
 * What a call is answered with.
 *
 * @param body JSON in UTF-8, or what a file has; empty for none
 */
record HttpReply(int status, Map<String, String> headers, byte[] body) {
    private static final byte[] NOTHING = {};

    /** A service outside that does not answer is asked again after this long at the earliest. */
    private static final String OUTSIDE_AGAIN_SECONDS = "5";

    /** Something that was asked for. */
    static HttpReply json(byte[] body) {
        var headers = new LinkedHashMap<String, String>();
        headers.put(HttpHeaders.CONTENT_TYPE, MediaType.APPLICATION_JSON_VALUE);
        return new HttpReply(HttpServletResponse.SC_OK, headers, body);
    }

    /** Bytes whose headers say what they are. */
    static HttpReply bytes(byte[] body) {
        return new HttpReply(HttpServletResponse.SC_OK, new LinkedHashMap<>(), body);
    }

    /** A status alone. */
    static HttpReply of(int status) {
        return new HttpReply(status, new LinkedHashMap<>(), NOTHING);
    }

    /** What a change came to; {@code repeated} says that nothing was done this time. */
    static HttpReply of(StoredReply answer, boolean repeated) {
        var headers = answer.headers();
        if (repeated) {
            headers.put(StoredReply.REPLAYED, "true");
        }
        return new HttpReply(answer.status(), headers, utf8(answer.body()));
    }

    /** Why a change was refused. */
    static HttpReply of(Outcome.Refused refused) {
        var problem = Problem.of(refused);
        CallNotes.failed(problem.status(), problem.said());
        var headers = new LinkedHashMap<String, String>();
        headers.put(HttpHeaders.CONTENT_TYPE, Problem.CONTENT_TYPE);
        if (refused.reason() == Outcome.Reason.UNAVAILABLE) {
            headers.put(HttpHeaders.RETRY_AFTER, OUTSIDE_AGAIN_SECONDS);
        }
        headers.putAll(Traced.headers(refused.trace(), java.util.List.of()));
        return new HttpReply(problem.status(), headers, utf8(JsonText.write(problem.plain())));
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** The same with one header more. */
    HttpReply with(String name, String value) {
        headers.put(name, value);
        return this;
    }

    /** The same with several headers more. */
    HttpReply with(Map<String, String> more) {
        headers.putAll(more);
        return this;
    }

    void send(HttpServletResponse response) throws IOException {
        response.setStatus(status);
        headers.forEach(response::setHeader);
        if (body.length > 0) {
            response.setContentLength(body.length);
            response.getOutputStream().write(body);
        }
    }

    /** Sends what was answered in the framework's form. */
    static void send(ResponseEntity<String> answer, HttpServletResponse response)
            throws IOException {
        response.setStatus(answer.getStatusCode().value());
        answer.getHeaders()
                .forEach(
                        (name, values) -> values.forEach(value -> response.addHeader(name, value)));
        var body = answer.getBody();
        if (body != null) {
            response.getOutputStream().write(utf8(body));
        }
    }
}
