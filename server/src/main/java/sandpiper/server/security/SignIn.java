package sandpiper.server.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Clock;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpHeaders;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.OpenSession;
import sandpiper.engine.signin.OpenSessions;
import sandpiper.server.intake.PublicAddress;

/** Opens and closes the sessions of people. */
@Component
public class SignIn {
    private static final int LONGEST_AGENT = 200;

    private final Credentials credentials;
    private final OpenSessions sessions;
    private final Clock clock;
    private final boolean secure;

    SignIn(
            Credentials credentials,
            OpenSessions sessions,
            Engine engine,
            PublicAddress publicAddress) {
        this.credentials = credentials;
        this.sessions = sessions;
        this.clock = engine.clock();
        this.secure = publicAddress.isSecure();
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
            SessionCookie.hash(request).ifPresent(sessions::end);
            var token = Secrets.make();
            sessions.begin(Secrets.hash(token), session(known.name(), request));
            SessionCookie.give(response, token, secure);
            var context = SecurityContextHolder.createEmptyContext();
            context.setAuthentication(new ActorAuthentication(known));
            SecurityContextHolder.setContext(context);
        });
        return actor;
    }

    private OpenSession session(String user, HttpServletRequest request) {
        var agent = request.getHeader(HttpHeaders.USER_AGENT);
        var now = clock.instant();
        return new OpenSession(
                UUID.randomUUID().toString(),
                user,
                credentials.stampOf(user).orElse(""),
                request.getRemoteAddr(),
                agent == null ? "" : agent.substring(0, Math.min(LONGEST_AGENT, agent.length())),
                now,
                now);
    }

    /** Closes the session of a request, when it has one. */
    public void signOut(HttpServletRequest request, HttpServletResponse response) {
        SessionCookie.hash(request).ifPresent(sessions::end);
        SessionCookie.take(response, secure);
        SecurityContextHolder.clearContext();
    }

    /** What the session of a request is called, or nothing when it has none. */
    public Optional<String> sessionOf(HttpServletRequest request) {
        return SessionCookie.hash(request).flatMap(sessions::find).map(OpenSession::id);
    }
}
