package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import org.springframework.web.HttpMediaTypeNotSupportedException;
import org.springframework.web.HttpRequestHandler;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import sandpiper.engine.access.Actor;
import sandpiper.logic.Quoted;
import sandpiper.server.config.ProblemAdvice;
import sandpiper.server.json.JsonType;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.CallMapping;

/** Leads calls of services over REST to {@link RestCalls}. */
@Component
final class ServiceCallMapping extends CallMapping {
    private static final List<MediaType> JSON = List.of(MediaType.APPLICATION_JSON);
    private static final List<MediaType> JSON_OR_PATCH =
            List.of(
                    MediaType.APPLICATION_JSON,
                    MediaType.parseMediaType("application/merge-patch+json"));

    private final RestCalls calls;
    private final BatchCalls batches;
    private final FileCalls files;
    private final ProblemAdvice problems;
    private final AllowedMethods allowed;

    ServiceCallMapping(
            RestCalls calls,
            BatchCalls batches,
            FileCalls files,
            ProblemAdvice problems,
            AllowedMethods allowed) {
        this.allowed = allowed;
        this.calls = calls;
        this.batches = batches;
        this.files = files;
        this.problems = problems;
    }

    @Override
    protected @Nullable HttpRequestHandler handler(HttpServletRequest request) {
        var place = RestPlace.read(request.getRequestURI());
        boolean events =
                place != null
                        && place.resource().equals("events")
                        && place.key() == null
                        && isReading(request.getMethod());
        if (place == null || events) {
            return null;
        }
        return (asked, response) -> answer(place, asked, response);
    }

    private static boolean isReading(String method) {
        return method.equals("GET") || method.equals("HEAD");
    }

    private void answer(RestPlace at, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        HttpReply reply;
        try {
            reply = reply(at, request, signedIn());
        } catch (IOException e) {
            throw e;
        } catch (Exception e) {
            HttpReply.send(failed(e, at, request, response), response);
            return;
        }
        reply.send(response);
    }

    private ResponseEntity<String> failed(
            Exception failure,
            RestPlace at,
            HttpServletRequest request,
            HttpServletResponse response) {
        var failed = problems.failed(failure, request);
        if (failed.getStatusCode() != HttpStatus.METHOD_NOT_ALLOWED) {
            return failed;
        }
        try {
            response.setHeader(HttpHeaders.ALLOW, allowed.at(at, signedIn()));
            return failed;
        } catch (RuntimeException nothing) {
            // Where nothing is for the caller, it was not the method that was wrong.
            return problems.failed(nothing, request);
        }
    }

    private static Actor signedIn() {
        return Objects.requireNonNull(actor());
    }

    private HttpReply reply(RestPlace at, HttpServletRequest request, Actor actor)
            throws Exception {
        var method = request.getMethod();
        if (method.equals("OPTIONS")) {
            return HttpReply.of(HttpServletResponse.SC_OK)
                    .with(HttpHeaders.ALLOW, allowed.at(at, actor));
        }
        var ofFile = ofFile(at, request, actor);
        if (ofFile != null) {
            return ofFile;
        }
        AcceptedTypes.requireJson(request);
        if (at.batch()) {
            return switch (method) {
                case "POST" -> batches.batch(at, actor, of(JSON, request));
                default -> throw notPossible(method);
            };
        }
        if (at.key() == null) {
            return switch (method) {
                case "GET", "HEAD" -> calls.query(at, actor, request);
                case "POST" -> calls.create(at, actor, of(JSON, request));
                default -> throw notPossible(method);
            };
        }
        if (at.call() != null) {
            return switch (method) {
                case "POST" -> calls.call(at, actor, request);
                default -> throw notPossible(method);
            };
        }
        return switch (method) {
            case "GET", "HEAD" -> calls.read(at, actor, request);
            case "PATCH" -> calls.update(at, actor, of(JSON_OR_PATCH, request));
            case "PUT" -> calls.save(at, actor, of(JSON, request));
            case "DELETE" -> calls.remove(at, actor, request);
            default -> throw notPossible(method);
        };
    }

    /** What is answered about a file, or {@code null} when the call is about none. */
    private @Nullable HttpReply ofFile(RestPlace at, HttpServletRequest request, Actor actor)
            throws Exception {
        if (!files.isMeant(at, actor, request)) {
            if (at.item() != null) {
                throw new ProblemException(
                        HttpStatus.NOT_FOUND,
                        "Nothing answers at %s.".formatted(request.getRequestURI()));
            }
            return null;
        }
        var method = request.getMethod();
        return switch (method) {
            case "GET", "HEAD" -> files.read(at, actor, request);
            case "PUT" -> files.put(at, actor, request);
            case "DELETE" -> files.remove(at, actor, request);
            default -> throw notPossible(method);
        };
    }

    private static HttpRequestMethodNotSupportedException notPossible(String method) {
        return new HttpRequestMethodNotSupportedException(method);
    }

    /** The request, when its body is of one of these types. */
    private static HttpServletRequest of(List<MediaType> types, HttpServletRequest request)
            throws HttpMediaTypeNotSupportedException {
        var type = JsonType.read(request.getContentType());
        if (type == null || types.stream().noneMatch(one -> one.equalsTypeAndSubtype(type))) {
            throw new HttpMediaTypeNotSupportedException(type, types);
        }
        if (!JsonType.isUtf8(type)) {
            throw new ProblemException(
                    HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                    "JSON is sent in UTF-8 (RFC 8259 §8.1), not in %s."
                            .formatted(Quoted.of(String.valueOf(type.getParameter("charset")))));
        }
        return request;
    }
}
