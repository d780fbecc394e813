package sandpiper.server.security;

import java.time.Duration;
import java.util.List;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.CorsConfigurer;
import org.springframework.stereotype.Component;
import org.springframework.web.cors.CorsConfiguration;
import sandpiper.server.settings.Settings;

/**
 * The web pages of other places that may call services from a browser (Fetch standard, CORS); none
 * unless configured. They bring credentials of their own: cookies of the console are not taken from
 * them.
 */
@Component
class Origins {
    private final List<String> origins;

    Origins(Settings settings) {
        this.origins = settings.cors().origins();
    }

    void allow(CorsConfigurer<HttpSecurity> cors) {
        if (origins.isEmpty()) {
            cors.disable();
            return;
        }
        var allowed = new CorsConfiguration();
        allowed.setAllowedOriginPatterns(origins);
        allowed.setAllowedMethods(List.of("GET", "HEAD", "POST", "PUT", "PATCH", "DELETE"));
        allowed.setAllowedHeaders(List.of("*"));
        allowed.setExposedHeaders(
                List.of(
                        "ETag",
                        "Location",
                        "Link",
                        "RateLimit",
                        "RateLimit-Policy",
                        "Retry-After",
                        "Idempotent-Replayed",
                        "OData-Version",
                        "OData-EntityId",
                        "Preference-Applied"));
        allowed.setMaxAge(Duration.ofHours(1));
        cors.configurationSource(_ -> allowed);
    }
}
