package sandpiper.server.config;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.HttpMediaTypeNotSupportedException;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.port.ConflictException;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.writer.LastWord;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.Failure;
import sandpiper.server.problem.Problem;
import sandpiper.server.traffic.CallNotes;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;

/** Turns whatever ends a request early into a problem. What is inside stays inside. */
@RestControllerAdvice
public class ProblemAdvice {
    /** What a call is answered with that ended in a failure. */
    public ResponseEntity<String> failed(Exception e, HttpServletRequest request) {
        return switch (e) {
            case OverloadedException busy -> overloaded(busy, request);
            case ConflictException conflict -> overloaded(conflict, request);
            case HttpMediaTypeNotSupportedException other -> ofAnotherType(other);
            default -> others(e, request);
        };
    }

    @ExceptionHandler({OverloadedException.class, ConflictException.class})
    ResponseEntity<String> overloaded(RuntimeException e, HttpServletRequest request) {
        var headers = new HttpHeaders();
        headers.add(HttpHeaders.RETRY_AFTER, Failure.RETRY_AFTER_SECONDS);
        return answer(Failure.of(e, asked(request)), headers);
    }

    @ExceptionHandler
    ResponseEntity<String> unreadable(HttpMessageNotReadableException e) {
        if (e.getCause() instanceof UnrecognizedPropertyException unknown) {
            return answer(unknown(unknown), HttpHeaders.EMPTY);
        }
        var where = "";
        if (e.getMostSpecificCause() instanceof JacksonException cause
                && cause.getLocation() != null) {
            where =
                    " (line %d, column %d)"
                            .formatted(
                                    cause.getLocation().getLineNr(),
                                    cause.getLocation().getColumnNr());
        }
        return answer(
                Problem.of(
                        HttpStatus.BAD_REQUEST,
                        "The body is not the JSON that is expected here%s; /manage/v1/openapi.json describes it."
                                .formatted(where),
                        List.of()),
                HttpHeaders.EMPTY);
    }

    private static Problem unknown(UnrecognizedPropertyException unknown) {
        var known = unknown.getKnownPropertyIds().stream().map(String::valueOf).sorted().toList();
        var name = unknown.getPropertyName();
        var said =
                "%s is not known here; there can be %s.%s"
                        .formatted(
                                Quoted.of(name),
                                String.join(", ", known),
                                Nearest.to(name, known)
                                        .map(near -> " Did you mean " + near + "?")
                                        .orElse(""));
        return Problem.of(
                HttpStatus.BAD_REQUEST,
                said,
                List.of(new Problem.Wrong(FaultPath.of(name), "SP4000", said)));
    }

    @ExceptionHandler
    ResponseEntity<String> invalid(MethodArgumentNotValidException e) {
        var errors =
                e.getFieldErrors().stream()
                        .map(error ->
                                new Problem.Wrong(
                                        FaultPath.of(error.getField()),
                                        "SP4000",
                                        error.getField() + " " + error.getDefaultMessage() + "."))
                        .toList();
        return answer(
                Problem.of(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        "Some values are not right; each is listed with its place.",
                        errors),
                HttpHeaders.EMPTY);
    }

    @ExceptionHandler
    ResponseEntity<String> mistyped(MethodArgumentTypeMismatchException e) {
        var type = e.getRequiredType();
        var wanted =
                type != null && type.isEnum()
                        ? "one of "
                                + String.join(
                                        ", ",
                                        Arrays.stream(type.getEnumConstants())
                                                .map(String::valueOf)
                                                .toList())
                        : "a number";
        return answer(
                Problem.of(
                        HttpStatus.BAD_REQUEST,
                        "%s must be %s.".formatted(e.getName(), wanted),
                        List.of()),
                HttpHeaders.EMPTY);
    }

    @ExceptionHandler
    ResponseEntity<String> ofAnotherType(HttpMediaTypeNotSupportedException e) {
        var taken =
                e.getSupportedMediaTypes().stream()
                        .map(MediaType::toString)
                        .collect(Collectors.joining(" or "));
        return answer(
                Problem.of(
                        HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                        "Send JSON with Content-Type: %s."
                                .formatted(taken.isEmpty() ? "application/json" : taken),
                        List.of()),
                e.getHeaders());
    }

    @ExceptionHandler
    ResponseEntity<String> others(Exception e, HttpServletRequest request) {
        if (LastWord.isFinal(e)) {
            LastWord.end(e);
        }
        if (e instanceof ErrorResponse known) {
            return answer(ofSpring(known.getStatusCode(), request), known.getHeaders());
        }
        return answer(Failure.of(e, asked(request)), HttpHeaders.EMPTY);
    }

    private static String asked(HttpServletRequest request) {
        return request.getMethod() + " " + request.getRequestURI();
    }

    private static Problem ofSpring(HttpStatusCode code, HttpServletRequest request) {
        var status =
                java.util.Objects.requireNonNullElse(
                        HttpStatus.resolve(code.value()), HttpStatus.BAD_REQUEST);
        var detail =
                switch (status) {
                    case NOT_FOUND -> "Nothing answers at %s.".formatted(request.getRequestURI());
                    case METHOD_NOT_ALLOWED ->
                            "%s is not possible here; see Allow.".formatted(request.getMethod());
                    case NOT_ACCEPTABLE -> "Only JSON can be answered; accept application/json.";
                    default -> "The request cannot be understood.";
                };
        return Problem.of(status, detail, List.of());
    }

    private static ResponseEntity<String> answer(Problem problem, HttpHeaders headers) {
        CallNotes.failed(problem.status(), problem.said());
        var more = new HttpHeaders();
        if (problem.status() == HttpStatus.SERVICE_UNAVAILABLE.value()
                && headers.getFirst(HttpHeaders.RETRY_AFTER) == null) {
            more.add(HttpHeaders.RETRY_AFTER, Failure.RETRY_AFTER_SECONDS);
        }
        return ResponseEntity.status(problem.status())
                .headers(headers)
                .headers(more)
                .header(HttpHeaders.CONTENT_TYPE, Problem.CONTENT_TYPE)
                .body(JsonText.write(problem.plain()));
    }
}
