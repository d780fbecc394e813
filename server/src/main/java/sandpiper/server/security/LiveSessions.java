package sandpiper.server.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpRequestResponseHolder;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;

/**
 * The sessions of the live service, for a copy beside it: who is signed in there is signed in here.
 * None begins or ends here.
 */
public final class LiveSessions implements SecurityContextRepository {
    private final Function<String, Optional<HttpSession>> live;

    /** Makes one that looks them up by what their cookie holds. */
    public LiveSessions(Function<String, Optional<HttpSession>> live) {
        this.live = live;
    }

    private Optional<SecurityContext> find(HttpServletRequest request) {
        return Optional.ofNullable(request.getRequestedSessionId())
                .flatMap(live)
                .flatMap(LiveSessions::context);
    }

    private static Optional<SecurityContext> context(HttpSession session) {
        try {
            return CurrentUserFilter.isTooOld(session)
                    ? Optional.empty()
                    : Optional.ofNullable(
                                    session.getAttribute(
                                            HttpSessionSecurityContextRepository
                                                    .SPRING_SECURITY_CONTEXT_KEY))
                            .map(SecurityContext.class::cast);
        } catch (IllegalStateException _) {
            // It ended while it was looked at.
            return Optional.empty();
        }
    }

    @Override
    @SuppressWarnings("deprecation")
    public SecurityContext loadContext(HttpRequestResponseHolder holder) {
        return find(holder.getRequest()).orElseGet(SecurityContextHolder::createEmptyContext);
    }

    @Override
    public void saveContext(
            SecurityContext context, HttpServletRequest request, HttpServletResponse response) {
        // Sessions are opened in the live service.
    }

    @Override
    public boolean containsContext(HttpServletRequest request) {
        return find(request).isPresent();
    }
}
