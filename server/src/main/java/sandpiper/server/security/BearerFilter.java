package sandpiper.server.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.http.HttpHeaders;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/** Takes tokens in the header Authorization, as RFC 6750 has it. */
final class BearerFilter extends OncePerRequestFilter {
    private static final String BEARER = "Bearer ";

    private final AccessTokens tokens;
    private final Credentials credentials;

    BearerFilter(AccessTokens tokens, Credentials credentials) {
        this.tokens = tokens;
        this.credentials = credentials;
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var header = request.getHeader(HttpHeaders.AUTHORIZATION);
        if (header == null || !header.regionMatches(true, 0, BEARER, 0, BEARER.length())) {
            chain.doFilter(request, response);
            return;
        }
        var actor =
                tokens.client(header.substring(BEARER.length()).strip())
                        .flatMap(credentials::client);
        if (actor.isEmpty()) {
            response.setHeader(
                    HttpHeaders.WWW_AUTHENTICATE,
                    "Bearer realm=\"Sandpiper\", error=\"invalid_token\"");
            SecurityConfiguration.refuse(
                    request, response, "The token is not right or has run out; get another.");
            return;
        }
        var context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(new ActorAuthentication(actor.get()));
        SecurityContextHolder.setContext(context);
        try {
            chain.doFilter(request, response);
        } finally {
            SecurityContextHolder.clearContext();
        }
    }
}
