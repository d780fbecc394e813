package sandpiper.server.intake;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import sandpiper.server.settings.Rehearsed;
import sandpiper.server.settings.Settings;

/**
 * Where others reach the service, for links and contracts. Behind a proxy that is another address
 * than the one a request comes to, and what the request says of it could be forged, so it is set.
 */
@Component
public final class PublicAddress {
    private final String set;
    private final String place;

    PublicAddress(Settings settings, Optional<Rehearsed> rehearsed) {
        this.set = settings.publicAddress();
        this.place = rehearsed.map(Rehearsed::place).orElse("");
    }

    /** Without a slash at the end. */
    public String of(HttpServletRequest request) {
        return set.isEmpty()
                ? ServletUriComponentsBuilder.fromContextPath(request).build().toUriString() + place
                : set;
    }

    /** Whether everybody comes over TLS. */
    public boolean isSecure() {
        return set.startsWith("https://");
    }
}
