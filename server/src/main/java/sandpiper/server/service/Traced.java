package sandpiper.server.service;

import jakarta.servlet.http.HttpServletRequest;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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

    /** An answer with what there is to say besides. */
    public static ResponseEntity<String> with(Outcome.Success done, ResponseEntity<String> answer) {
        return with(done.trace(), done.warnings(), answer);
    }

    /** An answer with what there is to say besides. */
    public static ResponseEntity<String> with(
            @Nullable Trace trace, List<Fault> warnings, ResponseEntity<String> answer) {
        var said = headers(trace, warnings);
        if (said.isEmpty()) {
            return answer;
        }
        var more = ResponseEntity.status(answer.getStatusCode()).headers(answer.getHeaders());
        said.forEach(more::header);
        return more.body(answer.getBody());
    }

    /** The headers in which an answer says it. */
    public static Map<String, String> headers(@Nullable Trace trace, List<Fault> warnings) {
        var headers = new LinkedHashMap<String, String>();
        if (trace != null) {
            headers.put(TRACE, trace.id().toString());
        }
        if (!warnings.isEmpty()) {
            headers.put(
                    WARNINGS,
                    ascii(JsonText.write(warnings.stream().map(Fault::message).toList())));
        }
        return headers;
    }

    private static String ascii(String json) {
        var text = new StringBuilder();
        json.chars()
                .forEach(c ->
                        text.append(c < 128 ? String.valueOf((char) c) : "\\u%04x".formatted(c)));
        return text.toString();
    }
}
