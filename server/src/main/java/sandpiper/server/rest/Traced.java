package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.trace.Trace;
import sandpiper.server.json.JsonText;

/**
 * What an answer says besides the record: where its account can be read, and what was said but
 * stopped nothing.
 */
public final class Traced {
    /** With {@code on} in a request asks for an account; in the answer stands its id. */
    public static final String TRACE = "Sandpiper-Trace";

    /** Warnings as a JSON list of texts, in ASCII. */
    public static final String WARNINGS = "Sandpiper-Warnings";

    private Traced() {}

    /** Whether the caller wants an account of the request. */
    public static boolean isAsked(HttpServletRequest request) {
        return "on".equalsIgnoreCase(request.getHeader(TRACE));
    }

    static ResponseEntity<String> with(Outcome.Done done, ResponseEntity<String> answer) {
        return with(done.trace(), done.warnings(), answer);
    }

    /** An answer with what there is to say besides. */
    public static ResponseEntity<String> with(
            @Nullable Trace trace, List<Fault> warnings, ResponseEntity<String> answer) {
        if (trace == null && warnings.isEmpty()) {
            return answer;
        }
        var more = ResponseEntity.status(answer.getStatusCode()).headers(answer.getHeaders());
        if (trace != null) {
            more.header(TRACE, trace.id().toString());
        }
        if (!warnings.isEmpty()) {
            more.header(
                    WARNINGS,
                    ascii(JsonText.write(warnings.stream().map(Fault::message).toList())));
        }
        return more.body(answer.getBody());
    }

    private static String ascii(String json) {
        var text = new StringBuilder();
        json.chars()
                .forEach(c ->
                        text.append(c < 128 ? String.valueOf((char) c) : "\\u%04x".formatted(c)));
        return text.toString();
    }
}
