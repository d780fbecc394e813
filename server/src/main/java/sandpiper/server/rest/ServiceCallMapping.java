package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.HttpMediaTypeNotSupportedException;
import org.springframework.web.HttpRequestHandler;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.servlet.HandlerExecutionChain;
import org.springframework.web.servlet.HandlerMapping;
import sandpiper.engine.access.Actor;
import sandpiper.logic.Quoted;
import sandpiper.server.config.ProblemAdvice;
import sandpiper.server.json.JsonType;
import sandpiper.server.problem.ProblemException;

/**
 * Leads calls of services over REST to {@link RestCalls}. They are many and all of one form, so the
 * address is read here instead of being matched with the patterns of every controller; measured,
 * that and writing the answer directly halve what a call costs.
 */
@Component
final class ServiceCallMapping implements HandlerMapping, Ordered {
    private static final List<MediaType> JSON = List.of(MediaType.APPLICATION_JSON);
    private static final List<MediaType> JSON_OR_PATCH =
            List.of(
                    MediaType.APPLICATION_JSON,
                    MediaType.parseMediaType("application/merge-patch+json"));

    private final RestCalls calls;
    private final BatchCalls batches;
    private final ProblemAdvice problems;
    private final AllowedMethods allowed;

    ServiceCallMapping(
            RestCalls calls, BatchCalls batches, ProblemAdvice problems, AllowedMethods allowed) {
        this.allowed = allowed;
        this.calls = calls;
        this.batches = batches;
        this.problems = problems;
    }

    /** Before the controllers, which have the contract and the events of a service. */
    @Override
    public int getOrder() {
        return -1;
    }

    @Override
    public @Nullable HandlerExecutionChain getHandler(HttpServletRequest request) {
        var place = RestPlace.read(request.getRequestURI());
        boolean events =
                place != null
                        && place.resource().equals("events")
                        && place.key() == null
                        && isReading(request.getMethod());
        if (place == null || events) {
            return null;
        }
        HttpRequestHandler handler = (asked, response) -> answer(place, asked, response);
        return new HandlerExecutionChain(handler);
    }

    private static boolean isReading(String method) {
        return method.equals("GET") || method.equals("HEAD");
    }

    private void answer(RestPlace at, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        HttpReply reply;
        try {
            reply = reply(at, request, actor());
        } catch (IOException e) {
            throw e;
        } catch (Exception e) {
            var failed = problems.failed(e, request);
            if (failed.getStatusCode() == HttpStatus.METHOD_NOT_ALLOWED) {
                response.setHeader(HttpHeaders.ALLOW, allowed.at(at, actor()));
            }
            HttpReply.send(failed, response);
            return;
        }
        reply.send(response);
    }

    private static Actor actor() {
        var signedIn = SecurityContextHolder.getContext().getAuthentication();
        return (Actor) Objects.requireNonNull(Objects.requireNonNull(signedIn).getPrincipal());
    }

    private HttpReply reply(RestPlace at, HttpServletRequest request, Actor actor)
            throws Exception {
        var method = request.getMethod();
        if (method.equals("OPTIONS")) {
            return HttpReply.of(HttpServletResponse.SC_OK)
                    .with(HttpHeaders.ALLOW, allowed.at(at, actor));
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
