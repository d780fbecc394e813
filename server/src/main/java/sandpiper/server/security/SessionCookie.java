package sandpiper.server.security;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;

/**
 * The cookie that holds the token of a session: out of reach of scripts, not sent along from other
 * sites' pages, gone with the browser, and over TLS alone when everybody comes that way.
 */
final class SessionCookie {
    private static final String NAME = "SANDPIPER";

    /** Longer than any token that was given. */
    private static final int LONGEST = 100;

    private SessionCookie() {}

    /** Whether a request came with one, whatever it holds. */
    static boolean isIn(HttpServletRequest request) {
        return cookies(request).findAny().isPresent();
    }

    private static Stream<Cookie> cookies(HttpServletRequest request) {
        var cookies = request.getCookies();
        return cookies == null
                ? Stream.of()
                : Stream.of(cookies).filter(one -> NAME.equals(one.getName()));
    }

    /** What is kept of the token a request came with. */
    static Optional<String> hash(HttpServletRequest request) {
        return cookies(request)
                .map(Cookie::getValue)
                .filter(token -> !token.isEmpty() && token.length() <= LONGEST)
                .findFirst()
                .map(Secrets::hash);
    }

    static void give(HttpServletResponse response, String token, boolean secure) {
        response.addHeader(HttpHeaders.SET_COOKIE, written(token, secure).build().toString());
    }

    static void take(HttpServletResponse response, boolean secure) {
        response.addHeader(
                HttpHeaders.SET_COOKIE,
                written("", secure).maxAge(Duration.ZERO).build().toString());
    }

    private static ResponseCookie.ResponseCookieBuilder written(String token, boolean secure) {
        return ResponseCookie.from(NAME, token)
                .path("/")
                .httpOnly(true)
                .sameSite("Lax")
                .secure(secure);
    }
}
