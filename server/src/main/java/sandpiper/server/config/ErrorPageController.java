package sandpiper.server.config;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Objects;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.RequestMapping;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.StorageException;
import sandpiper.server.intake.Refusal;
import sandpiper.server.problem.Failure;
import sandpiper.server.problem.Problem;

/** Answers in the protocol's form what ended before any of our own code could. */
@Controller
final class ErrorPageController implements ErrorController {
    @RequestMapping("/error")
    void error(HttpServletRequest request, HttpServletResponse response) throws IOException {
        var status =
                request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE) instanceof Integer code
                        ? Objects.requireNonNullElse(
                                HttpStatus.resolve(code), HttpStatus.INTERNAL_SERVER_ERROR)
                        : HttpStatus.NOT_FOUND;
        var address =
                Objects.requireNonNullElse(
                        request.getAttribute(RequestDispatcher.ERROR_REQUEST_URI), "/error");
        Refusal.write(response, address.toString(), problem(request, status, address.toString()));
    }

    /** Of what a filter ran into, such as storage that does not answer, callers hear what it is. */
    private static Problem problem(HttpServletRequest request, HttpStatus status, String address) {
        var thrown = request.getAttribute(RequestDispatcher.ERROR_EXCEPTION);
        return thrown instanceof StorageException || thrown instanceof OverloadedException
                ? Failure.of((RuntimeException) thrown, address)
                : Problem.of(status, Refusal.words(status.value()), List.of());
    }
}
