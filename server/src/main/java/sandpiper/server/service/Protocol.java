package sandpiper.server.service;

import java.util.Locale;
import sandpiper.engine.access.Actor;
import sandpiper.engine.service.DeniedException;
import sandpiper.engine.service.OpenedService;
import sandpiper.model.release.Release;
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

    /**
     * Opens a service that is offered in it.
     *
     * @throws DeniedException when there is none for the one who asks
     */
    public OpenedService open(Release release, Actor actor, String service, int version) {
        return OpenedService.of(release, actor, service, version, this::isSpokenBy, title);
    }

    /** Whether a service is offered in it. */
    public boolean isSpokenBy(ServiceType service) {
        return service.protocols().contains(name().toLowerCase(Locale.ROOT));
    }
}
