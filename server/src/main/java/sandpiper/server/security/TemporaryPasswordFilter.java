package sandpiper.server.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.engine.access.Actor;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.Protocol;

/** Lets somebody with a temporary password choose another, and do nothing else. */
final class TemporaryPasswordFilter extends OncePerRequestFilter {
    private static final Set<String> OPEN =
            Set.of(
                    "/manage/v1/session",
                    "/manage/v1/users/me/password",
                    "/manage/v1/health",
                    "/manage/v1/ready");

    private final Credentials credentials;

    TemporaryPasswordFilter(Credentials credentials) {
        this.credentials = credentials;
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (SecurityContextHolder.getContext().getAuthentication()
                        instanceof ActorAuthentication caller
                && caller.getPrincipal().kind() == Actor.Kind.USER
                && !OPEN.contains(request.getRequestURI())
                && isGuarded(request.getRequestURI())
                && credentials.isTemporary(caller.getPrincipal().name())) {
            SecurityConfiguration.write(
                    request,
                    response,
                    new ProblemException(
                                    HttpStatus.FORBIDDEN,
                                    "Your password was given to you by somebody else. Choose your"
                                            + " own first: sign in to the console, or run sandpiper"
                                            + " users password.")
                            .problem());
            return;
        }
        chain.doFilter(request, response);
    }

    /** The console's own files hold no data. */
    private static boolean isGuarded(String path) {
        return path.startsWith("/manage/") || Protocol.at(path).isPresent();
    }
}
