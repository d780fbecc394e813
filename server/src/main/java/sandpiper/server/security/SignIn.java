package sandpiper.server.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.stereotype.Component;
import sandpiper.engine.access.Actor;

/** Opens and closes the sessions of people. */
@Component
public class SignIn {
    private final Credentials credentials;
    private final SecurityContextRepository contexts;
    private final OpenSessions sessions;

    SignIn(Credentials credentials, SecurityContextRepository contexts, OpenSessions sessions) {
        this.credentials = credentials;
        this.contexts = contexts;
        this.sessions = sessions;
    }

    /** Opens a session, or gives nothing when name or password is not right. */
    public Optional<Actor> signIn(
            String name,
            String password,
            HttpServletRequest request,
            HttpServletResponse response) {
        var actor = credentials.user(name, password, request.getRemoteAddr());
        actor.ifPresent(known -> {
            // A session from before signing in could be somebody else's plant.
            var before = request.getSession(false);
            if (before != null) {
                before.invalidate();
            }
            var context = SecurityContextHolder.createEmptyContext();
            context.setAuthentication(
                    new ActorAuthentication(known, credentials.stampOf(name).orElse("")));
            SecurityContextHolder.setContext(context);
            contexts.saveContext(context, request, response);
            sessions.begun(known.name(), request);
        });
        return actor;
    }

    /** Closes the session of a request, when it has one. */
    public void signOut(HttpServletRequest request) {
        var session = request.getSession(false);
        if (session != null) {
            session.invalidate();
        }
        SecurityContextHolder.clearContext();
    }
}
