package sandpiper.server.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.access.Actor;
import sandpiper.server.problem.ProblemException;

/** Gives tokens to clients: OAuth 2.0 client credentials, RFC 6749 §4.4. */
@RestController
class TokenController {
    private static final String BASIC = "Basic ";

    private final Credentials credentials;
    private final AccessTokens tokens;
    private final RateLimits limits;

    TokenController(Credentials credentials, AccessTokens tokens, RateLimits limits) {
        this.credentials = credentials;
        this.tokens = tokens;
        this.limits = limits;
    }

    @PostMapping(path = "/oauth2/token", consumes = MediaType.APPLICATION_FORM_URLENCODED_VALUE)
    ResponseEntity<Map<String, Object>> token(
            HttpServletRequest request, HttpServletResponse response) throws IOException {
        if (request.getQueryString() != null) {
            // RFC 6749 §2.3.1: what stands in an address is kept in logs.
            return error(
                    HttpStatus.BAD_REQUEST,
                    "invalid_request",
                    "Parameters stand in the body, none in the address.");
        }
        var form = FormText.read(request.getInputStream().readAllBytes());
        if (form.isEmpty()) {
            return error(
                    HttpStatus.BAD_REQUEST,
                    "invalid_request",
                    "The body must be a form in UTF-8, each parameter once.");
        }
        var parameters = form.get();
        if (!"client_credentials".equals(parameters.get("grant_type"))) {
            return error(
                    HttpStatus.BAD_REQUEST,
                    parameters.get("grant_type") == null
                            ? "invalid_request"
                            : "unsupported_grant_type",
                    "grant_type must be client_credentials.");
        }
        Optional<Actor> client;
        try {
            client = client(request, parameters);
            client.ifPresent(found -> limits.count(found, response::setHeader));
        } catch (ProblemException tooMany) {
            return error(
                    HttpStatus.TOO_MANY_REQUESTS,
                    "slow_down",
                    String.valueOf(tooMany.getMessage()));
        }
        if (client.isEmpty()) {
            return error(
                    HttpStatus.UNAUTHORIZED,
                    "invalid_client",
                    "Send the id and secret of a client with HTTP Basic, or as client_id and"
                            + " client_secret.");
        }
        var answer = new LinkedHashMap<String, Object>();
        answer.put("access_token", tokens.issue(client.get().name()));
        answer.put("token_type", "Bearer");
        answer.put("expires_in", AccessTokens.LIFE.toSeconds());
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(answer);
    }

    private Optional<Actor> client(HttpServletRequest request, Map<String, String> parameters) {
        var header = request.getHeader(HttpHeaders.AUTHORIZATION);
        if (header == null) {
            return credentials.client(
                    parameters.getOrDefault("client_id", ""),
                    parameters.getOrDefault("client_secret", ""),
                    request.getRemoteAddr());
        }
        if (!header.regionMatches(true, 0, BASIC, 0, BASIC.length())) {
            return Optional.empty();
        }
        try {
            var pair =
                    new String(
                            Base64.getDecoder().decode(header.substring(BASIC.length()).strip()),
                            StandardCharsets.UTF_8);
            int colon = pair.indexOf(':');
            return colon < 0
                    ? Optional.empty()
                    : credentials.client(
                            pair.substring(0, colon),
                            pair.substring(colon + 1),
                            request.getRemoteAddr());
        } catch (IllegalArgumentException _) {
            return Optional.empty();
        }
    }

    private static ResponseEntity<Map<String, Object>> error(
            HttpStatus status, String code, String description) {
        var answer = new LinkedHashMap<String, Object>();
        answer.put("error", code);
        answer.put("error_description", description);
        var made = ResponseEntity.status(status).cacheControl(CacheControl.noStore());
        if (status == HttpStatus.UNAUTHORIZED) {
            made.header(HttpHeaders.WWW_AUTHENTICATE, "Basic realm=\"Sandpiper\"");
        }
        return made.body(answer);
    }
}
