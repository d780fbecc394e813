package sandpiper.server.service;

import java.util.Locale;
import sandpiper.model.release.ServiceType;

/** A way in which services are called. */
public enum Protocol {
    REST,
    SOAP;

    /** As people call it. */
    public String title() {
        return name();
    }

    /** Whether a service is offered in it. */
    public boolean isSpokenBy(ServiceType service) {
        return service.protocols().contains(name().toLowerCase(Locale.ROOT));
    }
}
