package sandpiper.server.security;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Optional;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.security.oauth2.jose.jws.MacAlgorithm;
import org.springframework.security.oauth2.jwt.JwsHeader;
import org.springframework.security.oauth2.jwt.JwtClaimsSet;
import org.springframework.security.oauth2.jwt.JwtDecoder;
import org.springframework.security.oauth2.jwt.JwtEncoder;
import org.springframework.security.oauth2.jwt.JwtEncoderParameters;
import org.springframework.security.oauth2.jwt.JwtException;
import org.springframework.security.oauth2.jwt.NimbusJwtDecoder;
import org.springframework.security.oauth2.jwt.NimbusJwtEncoder;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;

/**
 * Short-lived signed tokens for clients (JWT, RFC 7519), with a key of this instance. A token names
 * the client only: what it may do is looked up at each call, so that it ends with the client's
 * rights.
 */
@Component
class Tokens {
    /** How long a token is good for. */
    static final Duration LIFE = Duration.ofMinutes(10);

    private static final String ISSUER = "sandpiper";

    private final Engine engine;
    private final JwtEncoder encoder;
    private final JwtDecoder decoder;

    Tokens(Engine engine) {
        this.engine = engine;
        var secret =
                engine.write(transaction ->
                        engine.storage()
                                .access()
                                .setting(transaction, "token-key", Secrets.make()));
        var key = new SecretKeySpec(secret.getBytes(StandardCharsets.US_ASCII), "HmacSHA256");
        this.encoder = NimbusJwtEncoder.withSecretKey(key).build();
        this.decoder = NimbusJwtDecoder.withSecretKey(key).build();
    }

    /** A token for a client. */
    String issue(String client) {
        var now = engine.clock().instant();
        var claims =
                JwtClaimsSet.builder()
                        .issuer(ISSUER)
                        .subject(client)
                        .issuedAt(now)
                        .expiresAt(now.plus(LIFE))
                        .build();
        return encoder.encode(
                        JwtEncoderParameters.from(
                                JwsHeader.with(MacAlgorithm.HS256).build(), claims))
                .getTokenValue();
    }

    /** The client of a token, or nothing when it is not ours or has run out. */
    Optional<String> client(String token) {
        try {
            var decoded = decoder.decode(token);
            return ISSUER.equals(decoded.getClaimAsString("iss"))
                    ? Optional.ofNullable(decoded.getSubject())
                    : Optional.empty();
        } catch (JwtException _) {
            return Optional.empty();
        }
    }
}
