package sandpiper.server.config;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.concurrent.ThreadLocalRandom;
import org.slf4j.MDC;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Gives each request an id, which stands in every line of the log about it and in the answer. One
 * that the caller brings is taken over, so that a request can be followed through several systems.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
final class RequestIdFilter extends OncePerRequestFilter {
    /** The header of the request and the answer. */
    static final String HEADER = "X-Request-Id";

    /** The name in the log. */
    private static final String LOGGED = "request";

    private static final int LONGEST = 64;

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var brought = request.getHeader(HEADER);
        var id = brought != null && isFit(brought) ? brought : made();
        response.setHeader(HEADER, id);
        MDC.put(LOGGED, id);
        try {
            chain.doFilter(request, response);
        } finally {
            MDC.remove(LOGGED);
        }
    }

    /** Told apart from others is enough; it protects nothing. */
    private static String made() {
        return Long.toUnsignedString(ThreadLocalRandom.current().nextLong(), Character.MAX_RADIX);
    }

    /** Letters, digits and a few marks: nothing that could forge a line of the log. */
    private static boolean isFit(String id) {
        if (id.isEmpty() || id.length() > LONGEST) {
            return false;
        }
        for (int i = 0; i < id.length(); i++) {
            char c = id.charAt(i);
            boolean plain =
                    (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9');
            if (!plain && c != '-' && c != '_' && c != '.') {
                return false;
            }
        }
        return true;
    }
}
