package sandpiper.server.security;

import java.time.Duration;
import java.util.List;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.CorsConfigurer;
import org.springframework.stereotype.Component;
import org.springframework.web.cors.CorsConfiguration;

/**
 * The web pages of other places that may call services from a browser (Fetch standard, CORS); none
 * unless configured. They bring credentials of their own: cookies of the console are not taken from
 * them.
 */
@Component
class Origins {
    private final List<String> origins;

    /** Such as {@code https://booking.example}; with {@code *} in place of a part of the name. */
    Origins(@Value("${sandpiper.cors.origins:}") List<String> origins) {
        this.origins = origins.stream().map(String::strip).filter(one -> !one.isEmpty()).toList();
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
