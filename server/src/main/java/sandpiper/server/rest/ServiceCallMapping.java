package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.http.HttpHeaders;
import org.springframework.http.InvalidMediaTypeException;
import org.springframework.http.MediaType;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.HttpMediaTypeNotSupportedException;
import org.springframework.web.HttpRequestHandler;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.servlet.HandlerExecutionChain;
import org.springframework.web.servlet.HandlerMapping;
import sandpiper.engine.access.Actor;
import sandpiper.server.config.ProblemAdvice;

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

    ServiceCallMapping(RestCalls calls, BatchCalls batches, ProblemAdvice problems) {
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
            HttpReply.send(problems.failed(e, request), response);
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
        if (at.batch()) {
            return switch (method) {
                case "POST" -> batches.batch(at, actor, of(JSON, request));
                default -> otherwise(method, "POST");
            };
        }
        if (at.key() == null) {
            return switch (method) {
                case "GET", "HEAD" -> calls.query(at, actor, request);
                case "POST" -> calls.create(at, actor, of(JSON, request));
                default -> otherwise(method, "GET", "POST");
            };
        }
        if (at.call() != null) {
            return switch (method) {
                case "POST" -> calls.call(at, actor, request);
                default -> otherwise(method, "POST");
            };
        }
        return switch (method) {
            case "GET", "HEAD" -> calls.read(at, actor, request);
            case "PATCH" -> calls.update(at, actor, of(JSON_OR_PATCH, request));
            case "PUT" -> calls.save(at, actor, of(JSON, request));
            case "DELETE" -> calls.remove(at, actor, request);
            default -> otherwise(method, "GET", "PATCH", "PUT", "DELETE");
        };
    }

    /** Says what is possible, to those who ask for that and to all others. */
    private static HttpReply otherwise(String method, String... supported)
            throws HttpRequestMethodNotSupportedException {
        if (method.equals("OPTIONS")) {
            return HttpReply.of(HttpServletResponse.SC_OK)
                    .with(HttpHeaders.ALLOW, String.join(", ", supported));
        }
        throw new HttpRequestMethodNotSupportedException(method, List.of(supported));
    }

    /** The request, when its body is of one of these types. */
    private static HttpServletRequest of(List<MediaType> types, HttpServletRequest request)
            throws HttpMediaTypeNotSupportedException {
        var type = type(request.getContentType());
        if (type == null || types.stream().noneMatch(one -> one.equalsTypeAndSubtype(type))) {
            throw new HttpMediaTypeNotSupportedException(type, types);
        }
        return request;
    }

    /** {@code null} when there is none, or what stands there is no media type. */
    private static @Nullable MediaType type(@Nullable String given) {
        try {
            return given == null ? null : MediaType.parseMediaType(given);
        } catch (InvalidMediaTypeException _) {
            return null;
        }
    }
}
