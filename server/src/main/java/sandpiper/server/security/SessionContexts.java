package sandpiper.server.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpRequestResponseHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import sandpiper.engine.access.OpenSession;
import sandpiper.engine.signin.OpenSessions;

/**
 * Looks up at each request who has the session its cookie is of, and what that person may do now. A
 * session is of no use as soon as its user is disabled or removed, or has another password.
 */
final class SessionContexts implements SecurityContextRepository {
    private final OpenSessions sessions;
    private final Credentials credentials;

    SessionContexts(OpenSessions sessions, Credentials credentials) {
        this.sessions = sessions;
        this.credentials = credentials;
    }

    private Optional<SecurityContext> find(HttpServletRequest request) {
        return SessionCookie.hash(request).flatMap(sessions::find).flatMap(this::context);
    }

    private Optional<SecurityContext> context(OpenSession session) {
        return credentials
                .signedIn(session.user(), session.stamp())
                .map(actor -> {
                    var context = SecurityContextHolder.createEmptyContext();
                    context.setAuthentication(new ActorAuthentication(actor));
                    return context;
                });
    }

    @Override
    @SuppressWarnings("deprecation")
    public SecurityContext loadContext(HttpRequestResponseHolder holder) {
        return find(holder.getRequest()).orElseGet(SecurityContextHolder::createEmptyContext);
    }

    @Override
    public void saveContext(
            SecurityContext context, HttpServletRequest request, HttpServletResponse response) {
        // Signing in opens a session; what a request found out about its caller is its own.
    }

    @Override
    public boolean containsContext(HttpServletRequest request) {
        return find(request).isPresent();
    }
}
