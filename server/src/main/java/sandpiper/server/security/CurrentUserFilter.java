package sandpiper.server.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Duration;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Looks up at each request what somebody with a session may do now. A session ends at once when its
 * user is disabled or removed, or has another password, and after a day in any case.
 */
final class CurrentUserFilter extends OncePerRequestFilter {
    /** However busy it is, a session ends. */
    private static final Duration LONGEST = Duration.ofHours(24);

    private final Credentials credentials;

    CurrentUserFilter(Credentials credentials) {
        this.credentials = credentials;
    }

    static boolean isTooOld(HttpSession session) {
        return System.currentTimeMillis() - session.getCreationTime() > LONGEST.toMillis();
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var before = SecurityContextHolder.getContext().getAuthentication();
        var opened = request.getSession(false);
        if (opened != null && isTooOld(opened)) {
            opened.invalidate();
            SecurityContextHolder.clearContext();
        } else if (before instanceof ActorAuthentication session && session.stamp() != null) {
            var stamp = session.stamp();
            var context = SecurityContextHolder.createEmptyContext();
            credentials
                    .signedIn(session.getPrincipal().name(), stamp)
                    .ifPresent(actor ->
                            context.setAuthentication(new ActorAuthentication(actor, stamp)));
            SecurityContextHolder.setContext(context);
        }
        chain.doFilter(request, response);
    }
}
