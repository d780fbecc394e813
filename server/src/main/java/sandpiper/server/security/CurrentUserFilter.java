package sandpiper.server.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Looks up at each request what somebody with a session may do now. A session ends at once when its
 * user is disabled or removed, or has another password.
 */
final class CurrentUserFilter extends OncePerRequestFilter {
    private final Credentials credentials;

    CurrentUserFilter(Credentials credentials) {
        this.credentials = credentials;
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var before = SecurityContextHolder.getContext().getAuthentication();
        if (before instanceof ActorAuthentication session && session.stamp() != null) {
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
