package sandpiper.server.intake;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.Failure;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.Protocol;

/** Answers a request that goes no further, in the form of the protocol spoken at its address. */
public final class Refusal {
    private Refusal() {}

    /** Writes the answer; what is too much just now says when to come again. */
    public static void write(
            HttpServletRequest request, HttpServletResponse response, ProblemException refused)
            throws IOException {
        write(request, response, refused.problem());
    }

    /** The same for a problem. */
    public static void write(
            HttpServletRequest request, HttpServletResponse response, Problem problem)
            throws IOException {
        write(response, request.getRequestURI(), request.getContentType(), problem);
    }

    /** The same for an address that may be another than the request's, as after an error. */
    public static void write(HttpServletResponse response, String address, Problem problem)
            throws IOException {
        write(response, address, null, problem);
    }

    private static void write(
            HttpServletResponse response,
            String address,
            @Nullable String contentType,
            Problem problem)
            throws IOException {
        response.setStatus(problem.status());
        if (problem.status() == HttpStatus.SERVICE_UNAVAILABLE.value()) {
            response.setHeader(HttpHeaders.RETRY_AFTER, Failure.RETRY_AFTER_SECONDS);
        }
        if (Protocol.ODATA.isAt(address)) {
            response.setHeader("OData-Version", "4.01");
        }
        var writer = Protocol.problemsAt(address, contentType);
        response.setContentType(writer.contentType());
        response.getOutputStream().write(writer.text(problem).getBytes(StandardCharsets.UTF_8));
    }

    /** What a status means to whoever gets it. */
    public static String words(int status) {
        return switch (status) {
            case 400 -> "The request cannot be understood; look at its address and headers.";
            case 404 -> "Nothing answers there.";
            case 405 -> "That is not possible here; see Allow.";
            case 408 -> "The request did not come to its end in time.";
            case 413 -> "The body is too large; send larger amounts in several requests.";
            case 414, 431 -> "The address and the headers may have 16 KB together.";
            case 503 -> "The service is busy or stopping. Try again in a moment.";
            default ->
                    status >= 500
                            ? "Something unexpected happened; the operator finds it in the log."
                            : "The request cannot be understood.";
        };
    }
}
