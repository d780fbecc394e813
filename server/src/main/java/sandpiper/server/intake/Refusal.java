package sandpiper.server.intake;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.Failure;
import sandpiper.server.problem.ODataError;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;

/** Answers a request that goes no further, in the form of the protocol spoken at its address. */
public final class Refusal {
    private Refusal() {}

    /** Writes the answer; what is too much just now says when to come again. */
    public static void write(
            HttpServletRequest request, HttpServletResponse response, ProblemException refused)
            throws IOException {
        write(response, request.getRequestURI(), refused.problem());
    }

    /** The same for an address that may be another than the request's, as after an error. */
    public static void write(HttpServletResponse response, String address, Problem problem)
            throws IOException {
        response.setStatus(problem.status());
        if (problem.status() == HttpStatus.SERVICE_UNAVAILABLE.value()) {
            response.setHeader(HttpHeaders.RETRY_AFTER, Failure.RETRY_AFTER_SECONDS);
        }
        response.setContentType(type(address));
        response.getOutputStream().write(text(address, problem).getBytes(StandardCharsets.UTF_8));
    }

    private static String type(String address) {
        return address.startsWith("/odata/")
                ? "application/json;charset=UTF-8"
                : address.startsWith("/soap/") ? "text/xml;charset=UTF-8" : Problem.CONTENT_TYPE;
    }

    private static String text(String address, Problem problem) {
        if (address.startsWith("/odata/")) {
            return JsonText.write(ODataError.of(problem, pointer -> pointer));
        }
        if (address.startsWith("/soap/")) {
            boolean ours = HttpStatus.valueOf(problem.status()).is5xxServerError();
            return "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\"><s:Body><s:Fault><faultcode>s:%s</faultcode><faultstring>%s</faultstring></s:Fault></s:Body></s:Envelope>"
                    .formatted(ours ? "Server" : "Client", escaped(problem.said()));
        }
        return JsonText.write(problem.plain());
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
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
