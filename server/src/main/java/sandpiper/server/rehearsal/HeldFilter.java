package sandpiper.server.rehearsal;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.web.filter.OncePerRequestFilter;
import sandpiper.server.intake.Refusal;
import sandpiper.server.problem.ProblemException;

/**
 * Refuses on a copy what is done in the live service: definitions that are changed here would be
 * gone tomorrow, and who signs in there is signed in here.
 */
final class HeldFilter extends OncePerRequestFilter {
    private static final List<String> ELSEWHERE =
            Stream.of(
                            "draft",
                            "releases",
                            "rehearsal",
                            "packages",
                            "kept-values",
                            "session",
                            "sessions",
                            "users",
                            "clients",
                            "keys",
                            "webhooks")
                    .map(noun -> "/manage/v1/" + noun)
                    .toList();

    /** Reads what it is sent. */
    private static final String CHECK = "/manage/v1/draft/check";

    private static final Set<String> READING =
            Set.of(HttpMethod.GET.name(), HttpMethod.HEAD.name(), HttpMethod.OPTIONS.name());

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (READING.contains(request.getMethod()) || !isElsewhere(request.getRequestURI())) {
            chain.doFilter(request, response);
            return;
        }
        Refusal.write(
                request,
                response,
                new ProblemException(
                        HttpStatus.CONFLICT,
                        "This is a rehearsal, which is thrown away; do that in the service"
                                + " itself."));
    }

    private static boolean isElsewhere(String address) {
        return !address.equals(CHECK)
                && ELSEWHERE.stream()
                        .anyMatch(one -> address.equals(one) || address.startsWith(one + "/"));
    }
}
