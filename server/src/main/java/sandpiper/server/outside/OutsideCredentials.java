package sandpiper.server.outside;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.apache.hc.client5.http.classic.methods.HttpPost;
import org.apache.hc.client5.http.entity.UrlEncodedFormEntity;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.NameValuePair;
import org.apache.hc.core5.http.message.BasicNameValuePair;
import sandpiper.engine.port.OutsideStorage.Reach;
import sandpiper.server.json.Bounds;
import sandpiper.server.json.JsonReader;
import sandpiper.server.outgoing.OutgoingHttp;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.SecretCipher;

/**
 * By what an instance is known to services outside: Basic (RFC 7617), a bearer token (RFC 6750), or
 * one that is had for client credentials (OAuth 2.0, RFC 6749 §4.4).
 */
final class OutsideCredentials {
    private static final int LARGEST_ANSWER = 64 << 10;

    /** A token is not used in its last seconds. */
    private static final Duration MARGIN = Duration.ofSeconds(10);

    private static final Duration USUAL_LIFE = Duration.ofMinutes(5);

    private final OutgoingHttp http;
    private final SecretCipher cipher;
    private final Clock clock;
    private final JsonReader json = new JsonReader(new Bounds(LARGEST_ANSWER, 20, 1));
    private final Map<String, Token> tokens = new ConcurrentHashMap<>();

    OutsideCredentials(OutgoingHttp http, SecretCipher cipher, Clock clock) {
        this.http = http;
        this.cipher = cipher;
        this.clock = clock;
    }

    private record Token(Reach of, String text, Instant until) {}

    /** A header, or why there is none. */
    sealed interface Header {
        /** Of the name {@code Authorization}. */
        record Value(String text) implements Header {}

        /** None is needed. */
        record None() implements Header {}

        /** There should be one. */
        record Missing(String why) implements Header {}
    }

    /** What goes with a request. */
    Header header(Reach reach) {
        if (reach.scheme().equals("none")) {
            return new Header.None();
        }
        var sealed = reach.sealedSecret();
        var secret = sealed == null ? null : cipher.open(sealed).orElse(null);
        if (secret == null) {
            return new Header.Missing(
                    "Its secret cannot be opened with this instance's key; give it again.");
        }
        return switch (reach.scheme()) {
            case "basic" -> new Header.Value(basic(reach.user(), secret));
            case "bearer" -> new Header.Value("Bearer " + secret);
            default -> token(reach, secret);
        };
    }

    private static String basic(String user, String password) {
        return "Basic "
                + Base64.getEncoder()
                        .encodeToString((user + ":" + password).getBytes(StandardCharsets.UTF_8));
    }

    /** Forgets a token that was refused. */
    void forget(Reach reach) {
        tokens.remove(reach.setting());
    }

    private Header token(Reach reach, String secret) {
        var known = tokens.get(reach.setting());
        if (known != null && known.of().equals(reach) && known.until().isAfter(clock.instant())) {
            return new Header.Value("Bearer " + known.text());
        }
        var address = http.targets().check(reach.tokenAddress());
        var request = new HttpPost(address);
        // Both are encoded before they are put together (RFC 6749 §2.3.1).
        request.setHeader("Authorization", basic(encoded(reach.user()), encoded(secret)));
        request.setHeader("Accept", "application/json");
        var form = new ArrayList<NameValuePair>();
        form.add(new BasicNameValuePair("grant_type", "client_credentials"));
        if (!reach.scope().isEmpty()) {
            form.add(new BasicNameValuePair("scope", reach.scope()));
        }
        request.setEntity(new UrlEncodedFormEntity(List.copyOf(form), StandardCharsets.UTF_8));
        return http.send(
                address,
                request,
                new OutgoingHttp.Receiver<>() {
                    @Override
                    public Header handleResponse(ClassicHttpResponse response) throws IOException {
                        return read(reach, response);
                    }

                    @Override
                    public Header none(OutgoingHttp.NoAnswer why) {
                        return new Header.Missing("No access token was had: " + why.said());
                    }
                });
    }

    private static String encoded(String text) {
        return java.net.URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private Header read(Reach reach, ClassicHttpResponse response) throws IOException {
        if (response.getCode() != 200) {
            return new Header.Missing(
                    "No access token was had: %s answered %d."
                            .formatted(reach.tokenAddress(), response.getCode()));
        }
        try (var content = response.getEntity().getContent()) {
            var answer = json.object(content.readNBytes(LARGEST_ANSWER));
            if (answer.get("access_token") instanceof String token) {
                var life =
                        answer.get("expires_in") instanceof Number seconds
                                ? Duration.ofSeconds(seconds.longValue())
                                : USUAL_LIFE;
                tokens.put(
                        reach.setting(),
                        new Token(reach, token, clock.instant().plus(life).minus(MARGIN)));
                return new Header.Value("Bearer " + token);
            }
        } catch (ProblemException _) {
            // told below
        }
        return new Header.Missing("No access token was had: the answer holds none.");
    }
}
