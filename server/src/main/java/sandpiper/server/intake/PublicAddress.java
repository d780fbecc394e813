package sandpiper.server.intake;

import jakarta.servlet.http.HttpServletRequest;
import java.net.URI;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;

/**
 * Where others reach the service, for links and contracts. Behind a proxy that is another address
 * than the one a request comes to, and what the request says of it could be forged, so it is set.
 */
@Component
public final class PublicAddress {
    private final String set;

    /**
     * Takes {@code https://marina.example}, or nothing to go by the request.
     *
     * @throws IllegalArgumentException when it is no address
     */
    PublicAddress(@Value("${sandpiper.public-address:}") String set) {
        this.set = set.strip().replaceFirst("/+$", "");
        if (!this.set.isEmpty()) {
            var uri = URI.create(this.set);
            if (uri.getHost() == null || !String.valueOf(uri.getScheme()).matches("https?")) {
                throw new IllegalArgumentException(
                        "sandpiper.public-address must begin with https:// and name a host, but is %s."
                                .formatted(set));
            }
        }
    }

    /** Without a slash at the end. */
    public String of(HttpServletRequest request) {
        return set.isEmpty()
                ? ServletUriComponentsBuilder.fromContextPath(request).build().toUriString()
                : set;
    }

    /** Whether everybody comes over TLS. */
    public boolean isSecure() {
        return set.startsWith("https://");
    }
}
