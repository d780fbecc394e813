package sandpiper.server.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.server.problem.ProblemException;

/** Counts the calls of clients whose credentials came with HTTP. */
final class RateLimitFilter extends OncePerRequestFilter {
    private final RateLimits limits;

    RateLimitFilter(RateLimits limits) {
        this.limits = limits;
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (SecurityContextHolder.getContext().getAuthentication()
                instanceof ActorAuthentication caller) {
            try {
                limits.count(caller.getPrincipal(), response::setHeader);
            } catch (ProblemException tooMany) {
                SecurityConfiguration.write(request, response, tooMany.problem());
                return;
            }
        }
        chain.doFilter(request, response);
    }
}
