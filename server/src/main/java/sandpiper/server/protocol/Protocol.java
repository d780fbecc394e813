package sandpiper.server.protocol;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.service.DeniedException;
import sandpiper.engine.service.OpenedService;
import sandpiper.model.release.Release;
import sandpiper.model.release.ServiceType;

/** A way in which services are called. */
public enum Protocol {
    REST("REST", Protocol.REST_AT, ProblemWriter.PLAIN),
    SOAP("SOAP", Protocol.SOAP_AT, new SoapFault(SoapVersion.SOAP_11)),
    ODATA("OData", Protocol.ODATA_AT, new ODataError());

    /** Where services answer in REST. */
    public static final String REST_AT = "/api/";

    /** Where services answer in SOAP. */
    public static final String SOAP_AT = "/soap/";

    /** Where services answer in OData. */
    public static final String ODATA_AT = "/odata/";

    private static final List<Protocol> ALL = List.of(values());

    private final String title;
    private final String prefix;
    private final ProblemWriter problems;

    Protocol(String title, String prefix, ProblemWriter problems) {
        this.title = title;
        this.prefix = prefix;
        this.problems = problems;
    }

    /** The protocol that is spoken at an address; nothing for addresses of no service. */
    public static Optional<Protocol> at(String address) {
        // Asked several times for each request, so without a stream.
        for (var protocol : ALL) {
            if (protocol.isAt(address)) {
                return Optional.of(protocol);
            }
        }
        return Optional.empty();
    }

    /** Whether it is spoken at an address. */
    public boolean isAt(String address) {
        return address.startsWith(prefix);
    }

    /** How it is said at an address what went wrong. */
    public static ProblemWriter problemsAt(String address) {
        return problemsAt(address, null);
    }

    /**
     * The same to who sent something of a type, which says what is read for an answer.
     *
     * @param contentType {@code null} for nothing
     */
    public static ProblemWriter problemsAt(String address, @Nullable String contentType) {
        if (SOAP.isAt(address)) {
            return new SoapFault(SoapVersion.of(contentType));
        }
        return at(address).map(protocol -> protocol.problems).orElse(ProblemWriter.PLAIN);
    }

    /** As people call it. */
    public String title() {
        return title;
    }

    /** Where a service answers, from the root of the server: {@code /api/berth-desk/v1}. */
    public String address(String service, int version) {
        return prefix + service + "/v" + version;
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
