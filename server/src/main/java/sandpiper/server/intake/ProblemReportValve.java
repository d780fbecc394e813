package sandpiper.server.intake;

import java.io.IOException;
import java.util.List;
import java.util.Objects;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ErrorReportValve;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.Problem;

/** Says what the web server itself refuses, as a problem and not as a page of its own. */
public final class ProblemReportValve extends ErrorReportValve {
    @Override
    protected void report(Request request, Response response, @Nullable Throwable throwable) {
        int status = response.getStatus();
        if (status < HttpStatus.BAD_REQUEST.value()
                || response.getContentWritten() > 0
                || !response.setErrorReported()) {
            return;
        }
        try {
            Refusal.write(
                    response.getResponse(),
                    Objects.requireNonNullElse(request.getRequestURI(), ""),
                    Problem.of(
                            Objects.requireNonNullElse(
                                    HttpStatus.resolve(status), HttpStatus.BAD_REQUEST),
                            Refusal.words(status),
                            List.of()));
            response.finishResponse();
        } catch (IOException | RuntimeException _) {
            // Whoever asked is gone.
        }
    }
}
