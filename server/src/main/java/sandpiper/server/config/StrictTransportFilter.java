package sandpiper.server.config;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.server.intake.PublicAddress;

/** Has browsers come over TLS alone (RFC 6797) when the public address says so. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 3)
final class StrictTransportFilter extends OncePerRequestFilter {
    private final PublicAddress address;

    StrictTransportFilter(PublicAddress address) {
        this.address = address;
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (address.isSecure()) {
            response.setHeader("Strict-Transport-Security", "max-age=31536000");
        }
        chain.doFilter(request, response);
    }
}
