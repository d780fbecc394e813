package sandpiper.server.replay;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.engine.access.Actor;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.traffic.CallNotes;

/**
 * Keeps calls of services by clients. It stands behind the one that takes bodies in, so that a body
 * can be read again. Not kept: what is large, messages that bring a secret inside, and what was not
 * looked at because the caller or the service could not.
 */
final class RecordingFilter extends OncePerRequestFilter {
    private static final int LARGEST = 64 << 10;

    /** Those that change what is answered; never those by which a caller is known. */
    private static final List<String> HEADERS =
            List.of(
                    HttpHeaders.ACCEPT,
                    HttpHeaders.ACCEPT_LANGUAGE,
                    HttpHeaders.CONTENT_TYPE,
                    HttpHeaders.IF_MATCH,
                    HttpHeaders.IF_NONE_MATCH,
                    "Prefer",
                    "SOAPAction",
                    "OData-Version",
                    "OData-MaxVersion",
                    "X-HTTP-Method-Override");

    private static final Set<Integer> NOT_LOOKED_AT =
            Set.of(
                    HttpStatus.UNAUTHORIZED.value(),
                    HttpStatus.TOO_MANY_REQUESTS.value(),
                    HttpStatus.CONTENT_TOO_LARGE.value(),
                    HttpStatus.SERVICE_UNAVAILABLE.value());

    private final Recordings recordings;
    private final Clock clock;

    RecordingFilter(Recordings recordings, Clock clock) {
        this.recordings = recordings;
        this.clock = clock;
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var at = clock.instant();
        chain.doFilter(request, response);
        var title = CallNotes.title(request);
        var authentication = SecurityContextHolder.getContext().getAuthentication();
        if (title.isPresent()
                && !NOT_LOOKED_AT.contains(response.getStatus())
                && request.getContentLengthLong() <= LARGEST
                && authentication != null
                && authentication.getPrincipal() instanceof Actor actor
                && actor.kind() == Actor.Kind.CLIENT) {
            var body =
                    request.getContentLengthLong() > 0
                            ? request.getInputStream().readAllBytes()
                            : new byte[0];
            if (!holdsSecret(request, body)) {
                recordings.add(
                        new RecordedCall(
                                at,
                                title.get() + protocol(request),
                                actor.name(),
                                request.getMethod(),
                                target(request),
                                headers(request),
                                body));
            }
        }
    }

    private static String target(HttpServletRequest request) {
        var question = request.getQueryString();
        return request.getRequestURI() + (question == null ? "" : "?" + question);
    }

    /** A message may bring a secret inside although its sender is known without it. */
    private static boolean holdsSecret(HttpServletRequest request, byte[] body) {
        return Protocol.SOAP.isAt(request.getRequestURI())
                && new String(body, StandardCharsets.UTF_8).contains("UsernameToken");
    }

    private static String protocol(HttpServletRequest request) {
        return Protocol.at(request.getRequestURI()).map(one -> ", " + one.title()).orElse("");
    }

    private static Map<String, String> headers(HttpServletRequest request) {
        var headers = new LinkedHashMap<String, String>();
        for (var name : HEADERS) {
            var value = request.getHeader(name);
            if (value != null) {
                headers.put(name, value);
            }
        }
        return headers;
    }
}
