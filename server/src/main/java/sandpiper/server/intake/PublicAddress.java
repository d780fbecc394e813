package sandpiper.server.intake;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import sandpiper.server.settings.Settings;

/**
 * Where others reach the service, for links and contracts. Behind a proxy that is another address
 * than the one a request comes to, and what the request says of it could be forged, so it is set.
 */
@Component
public final class PublicAddress {
    private final String set;

    PublicAddress(Settings settings) {
        this.set = settings.publicAddress();
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
