package sandpiper.server.security;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import javax.crypto.SecretKey;
import org.springframework.security.oauth2.jose.jws.MacAlgorithm;
import org.springframework.security.oauth2.jwt.JwsHeader;
import org.springframework.security.oauth2.jwt.JwtClaimsSet;
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
public class AccessTokens {
    /** How long a token is good for. */
    public static final Duration LIFE = Duration.ofMinutes(10);

    private static final String ISSUER = "sandpiper";

    private static final String AUDIENCE = "sandpiper-services";

    private final Engine engine;
    private final Supplier<SecretKey> key;

    AccessTokens(Engine engine, Keys keys) {
        this.engine = engine;
        this.key = keys.of("tokens");
    }

    /** A token for a client. */
    public String issue(String client) {
        var now = engine.clock().instant();
        var claims =
                JwtClaimsSet.builder()
                        .issuer(ISSUER)
                        .subject(client)
                        .audience(List.of(AUDIENCE))
                        .issuedAt(now)
                        .expiresAt(now.plus(LIFE))
                        .build();
        return NimbusJwtEncoder.withSecretKey(key.get())
                .build()
                .encode(
                        JwtEncoderParameters.from(
                                JwsHeader.with(MacAlgorithm.HS256).build(), claims))
                .getTokenValue();
    }

    /** The client of a token, or nothing when it is not ours or has run out. */
    Optional<String> client(String token) {
        try {
            var decoded = NimbusJwtDecoder.withSecretKey(key.get()).build().decode(token);
            var until = decoded.getExpiresAt();
            boolean ours =
                    ISSUER.equals(decoded.getClaimAsString("iss"))
                            && decoded.getAudience() != null
                            && decoded.getAudience().contains(AUDIENCE)
                            && until != null
                            && !until.isAfter(engine.clock().instant().plus(LIFE));
            return ours ? Optional.ofNullable(decoded.getSubject()) : Optional.empty();
        } catch (JwtException _) {
            return Optional.empty();
        }
    }
}
