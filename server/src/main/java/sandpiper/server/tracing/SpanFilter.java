package sandpiper.server.tracing;

import io.opentelemetry.api.trace.Span;
import io.opentelemetry.api.trace.SpanKind;
import io.opentelemetry.api.trace.StatusCode;
import io.opentelemetry.api.trace.Tracer;
import io.opentelemetry.api.trace.propagation.W3CTraceContextPropagator;
import io.opentelemetry.context.Context;
import io.opentelemetry.context.propagation.TextMapGetter;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Collections;
import org.jspecify.annotations.Nullable;
import org.slf4j.MDC;
import org.springframework.core.Ordered;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.server.traffic.CallNotes;

/**
 * A span for each request, as a part of the caller's trace when it brings one (W3C Trace Context).
 * Attributes have the names of the semantic conventions for HTTP.
 */
final class SpanFilter extends OncePerRequestFilter implements Ordered {
    private static final int SERVER_ERROR = 500;

    private final Tracer tracer;

    SpanFilter(Tracer tracer) {
        this.tracer = tracer;
    }

    /** Behind the filter that gives a request its id. */
    @Override
    public int getOrder() {
        return Ordered.HIGHEST_PRECEDENCE + 1;
    }

    /** Reads the caller's headers. */
    private static final class Headers implements TextMapGetter<HttpServletRequest> {
        static final Headers OF_REQUEST = new Headers();

        @Override
        public Iterable<String> keys(HttpServletRequest request) {
            return Collections.list(request.getHeaderNames());
        }

        @Override
        public @Nullable String get(@Nullable HttpServletRequest request, String name) {
            return request == null ? null : request.getHeader(name);
        }
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var caller =
                W3CTraceContextPropagator.getInstance()
                        .extract(Context.root(), request, Headers.OF_REQUEST);
        var span =
                tracer.spanBuilder(request.getMethod())
                        .setParent(caller)
                        .setSpanKind(SpanKind.SERVER)
                        .setAttribute("http.request.method", request.getMethod())
                        .setAttribute("url.path", request.getRequestURI())
                        .startSpan();
        MDC.put("trace", span.getSpanContext().getTraceId());
        try (var _ = span.makeCurrent()) {
            chain.doFilter(request, response);
        } catch (IOException | ServletException | RuntimeException e) {
            span.recordException(e);
            span.setStatus(StatusCode.ERROR);
            throw e;
        } finally {
            MDC.remove("trace");
            finish(span, request, response);
        }
    }

    /** Names it after the service that was called: names of records would make each its own. */
    private static void finish(
            Span span, HttpServletRequest request, HttpServletResponse response) {
        CallNotes.title(request).ifPresent(span::updateName);
        span.setAttribute("http.response.status_code", response.getStatus());
        if (response.getStatus() >= SERVER_ERROR) {
            span.setStatus(StatusCode.ERROR);
        }
        span.end();
    }
}
