package sandpiper.server.traffic;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.util.Objects;
import org.springframework.boot.security.autoconfigure.web.servlet.SecurityFilterProperties;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.engine.call.Called;
import sandpiper.server.service.Traced;

/** Counts each request that turned out to call a service. */
@Component
@Order(SecurityFilterProperties.DEFAULT_FILTER_ORDER + 5)
class TrafficFilter extends OncePerRequestFilter {
    private final Traffic traffic;

    TrafficFilter(Traffic traffic) {
        this.traffic = traffic;
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        long start = System.nanoTime();
        try {
            chain.doFilter(request, response);
        } finally {
            var noted = CallNotes.noted(request);
            if (noted != null) {
                var said = CallNotes.said(request);
                traffic.count(
                        new Called(
                                noted.service(),
                                noted.version(),
                                noted.revision(),
                                noted.resource(),
                                noted.operation(),
                                noted.protocol(),
                                noted.caller()),
                        said == null ? response.getStatus() : said.status(),
                        Duration.ofNanos(System.nanoTime() - start),
                        said == null ? "" : said.message(),
                        Objects.requireNonNullElse(response.getHeader(Traced.TRACE), ""));
            }
        }
    }
}
