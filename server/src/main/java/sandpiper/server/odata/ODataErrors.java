package sandpiper.server.odata;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Pattern;
import org.apache.olingo.commons.api.ex.ODataException;
import org.apache.olingo.commons.api.format.ContentType;
import org.apache.olingo.server.api.OData;
import org.apache.olingo.server.api.ODataLibraryException;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.ODataResponse;
import org.apache.olingo.server.api.ODataServerError;
import org.apache.olingo.server.api.ServiceMetadata;
import org.apache.olingo.server.api.processor.ErrorProcessor;
import org.apache.olingo.server.core.uri.parser.UriParserSemanticException;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import sandpiper.engine.command.FaultPath;
import sandpiper.logic.Quoted;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.problem.Failure;
import sandpiper.server.problem.Problem;
import sandpiper.server.protocol.ODataError;
import sandpiper.server.traffic.CallNotes;

/** Writes what went wrong as an OData error (JSON Format 4.01, 21.1). */
public final class ODataErrors implements ErrorProcessor {
    /** The library gives what it tells of in its sentence alone. */
    private static final Pattern NAMED = Pattern.compile("'([^']*)'");

    @Override
    public void init(OData odata, ServiceMetadata metadata) {
        // needs neither
    }

    @Override
    public void processError(
            ODataRequest request,
            ODataResponse response,
            ODataServerError error,
            ContentType format) {
        var cause = error.getException();
        boolean known = cause instanceof ODataException || isOfParser(cause);
        if (Failure.isPassing(cause)) {
            response.setHeader(HttpHeaders.RETRY_AFTER, Failure.RETRY_AFTER_SECONDS);
        }
        write(
                response,
                known || cause == null
                        ? Problem.of(
                                Objects.requireNonNullElse(
                                        isOfParser(cause)
                                                ? HttpStatus.BAD_REQUEST
                                                : HttpStatus.resolve(error.getStatusCode()),
                                        HttpStatus.BAD_REQUEST),
                                isOfParser(cause)
                                        ? "The address cannot be understood."
                                        : unknown(cause, error.getMessage())
                                                .orElseGet(() ->
                                                        words(String.valueOf(error.getMessage()))),
                                List.of())
                        : Failure.of(cause, request.getMethod() + " " + request.getRawRequestUri()),
                null);
    }

    /** Whether the parser of addresses came upon something that it does not know itself. */
    private static boolean isOfParser(@Nullable Exception cause) {
        return cause instanceof RuntimeException
                && cause.getStackTrace().length > 0
                && Arrays.stream(cause.getStackTrace())
                        .limit(4)
                        .anyMatch(frame ->
                                frame.getClassName()
                                        .startsWith("org.apache.olingo.server.core.uri"));
    }

    /** The library tells name and type, but not always in the order of its own sentence. */
    private static Optional<String> unknown(@Nullable Exception cause, @Nullable String sentence) {
        if (!(cause instanceof ODataLibraryException said)
                || said.getMessageKey()
                        != UriParserSemanticException.MessageKeys.EXPRESSION_PROPERTY_NOT_IN_TYPE) {
            return Optional.empty();
        }
        var told =
                NAMED.matcher(String.valueOf(sentence)).results().map(one -> one.group(1)).toList();
        var type = told.stream().filter(one -> one.indexOf('.') >= 0).findFirst();
        var name = told.stream().filter(one -> one.indexOf('.') < 0 && !one.isEmpty()).findFirst();
        return name.map(one ->
                type.map(of -> "%s has no property %s.".formatted(of, Quoted.of(one)))
                        .orElseGet(() -> "There is no property %s.".formatted(Quoted.of(one))));
    }

    /** What callers can use; what the parser says of itself is for those who wrote it. */
    private static String words(String message) {
        return message.contains("tokenizer") || message.contains("Exception")
                ? "$search cannot be read: write words, phrases in double quotes, AND, OR and NOT."
                : message;
    }

    /** {@code shape} is the entity that values stood in, or {@code null} when none did. */
    void write(ODataResponse response, Problem problem, @Nullable EntityShape shape) {
        CallNotes.failed(problem.status(), problem.said());
        ODataResponses.json(
                response,
                HttpStatus.valueOf(problem.status()),
                ContentType.JSON,
                ODataError.of(problem, path -> target(path, shape)));
    }

    /** {@code vessel} as OData calls it: {@code vesselKey}. */
    private static String target(FaultPath at, @Nullable EntityShape shape) {
        var path = at.joined("/");
        if (shape == null) {
            return path;
        }
        return shape.values().stream()
                .filter(value -> value.path().written().equals(path))
                .map(EntityShape.Value::name)
                .findFirst()
                .orElse(path);
    }
}
