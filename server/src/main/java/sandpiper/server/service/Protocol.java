package sandpiper.server.service;

import java.util.Locale;
import sandpiper.model.release.ServiceType;

/** A way in which services are called. */
public enum Protocol {
    REST("REST"),
    SOAP("SOAP"),
    ODATA("OData");

    private final String title;

    Protocol(String title) {
        this.title = title;
    }

    /** As people call it. */
    public String title() {
        return title;
    }

    /** Whether a service is offered in it. */
    public boolean isSpokenBy(ServiceType service) {
        return service.protocols().contains(name().toLowerCase(Locale.ROOT));
    }
}
