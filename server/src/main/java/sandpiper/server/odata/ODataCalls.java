package sandpiper.server.odata;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Collections;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.commons.api.http.HttpMethod;
import org.apache.olingo.server.api.OData;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.ODataResponse;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.Quoted;
import sandpiper.model.release.ServiceType;
import sandpiper.server.intake.PublicAddress;
import sandpiper.server.json.JsonReader;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.odata.request.Negotiation;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.problem.Failure;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.protocol.ServiceAddress;
import sandpiper.server.security.RateLimits;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.ReleaseChoice;
import sandpiper.server.service.RevisionParameter;

/** Every service over OData 4.01. What there is is looked up in the live release at each call. */
@Component
public class ODataCalls {
    private final PublicAddress addresses;
    private final RateLimits limits;
    private final Engine engine;
    private final Cursors cursors;
    private final JsonReader json;
    private final OData odata = OData.newInstance();
    private final Map<Revised, OpenedModel> models = new ConcurrentHashMap<>();
    private volatile int release = -1;

    /** A service in a revision of its contract. */
    private record Revised(String service, int version, int revision) {}

    private record OpenedModel(ServiceModel model, EntityForms forms) {
        OpenedModel(ServiceModel model) {
            this(model, new EntityForms());
        }
    }

    ODataCalls(
            Engine engine,
            Cursors cursors,
            JsonReader json,
            PublicAddress addresses,
            RateLimits limits) {
        this.limits = limits;
        this.addresses = addresses;
        this.engine = engine;
        this.cursors = cursors;
        this.json = json;
    }

    /** Answers a call of a service. */
    void answer(
            ServiceAddress address,
            Actor actor,
            HttpServletRequest http,
            HttpServletResponse answer)
            throws IOException {
        var spoken = Negotiation.NEWEST;
        try {
            spoken = Negotiation.version(http.getHeader(HttpHeader.ODATA_MAX_VERSION));
            var exchange =
                    exchange(
                            address.service(),
                            address.version(),
                            ReleaseChoice.Source.LIVE,
                            actor,
                            http);
            if (http.getMethod().equals("OPTIONS")) {
                answer.setHeader(
                        HttpHeaders.ALLOW,
                        EntityMethods.at(exchange.model(), address.behind()).orElse("GET, POST")
                                + ", OPTIONS");
                return;
            }
            var request = request(http, address, exchange);
            var run = run(exchange, spoken);
            boolean batch = request.getRawODataPath().equals("/$batch");
            write(
                    batch && isJson(http.getContentType())
                            ? run.jsonBatch(request)
                            : run.handle(request),
                    answer,
                    spoken);
        } catch (RuntimeException e) {
            var response = new ODataResponse();
            new ODataErrors()
                    .write(
                            response,
                            Failure.of(e, http.getMethod() + " " + http.getRequestURI()),
                            null);
            write(response, answer, spoken);
        }
    }

    private static boolean isJson(@Nullable String contentType) {
        return contentType != null
                && contentType.toLowerCase(Locale.ROOT).startsWith("application/json");
    }

    /** A service in a release, for who asks. */
    public ODataContext exchange(
            String service,
            int version,
            ReleaseChoice.Source of,
            Actor actor,
            HttpServletRequest http) {
        var server = addresses.of(http);
        var live = engine.live();
        boolean isLive = of == ReleaseChoice.Source.LIVE;
        var from = isLive ? live.release() : ReleaseChoice.of(engine, actor, of);
        var type = Protocol.ODATA.open(from, actor, service, version).type();
        int revision = isLive ? RevisionParameter.of(http) : RevisionParameter.NEWEST;
        var opened =
                isLive
                        ? model(
                                live,
                                RevisionParameter.narrow(engine, live, type, revision),
                                revision)
                        : new OpenedModel(new ServiceModel(from, type));
        return new ODataContext(
                engine,
                cursors,
                json,
                limits,
                actor,
                opened.model(),
                opened.forms(),
                revision,
                server);
    }

    private OpenedModel model(LiveRelease live, ServiceType type, int revision) {
        if (release != live.number()) {
            models.clear();
            release = live.number();
        }
        return models.computeIfAbsent(
                new Revised(type.name(), type.version(), revision),
                _ -> new OpenedModel(new ServiceModel(live.release(), type)));
    }

    /** The handling of one request, which may hold several. */
    public ODataRun run(ODataContext exchange, String spoken) {
        return new ODataRun(odata, exchange, spoken);
    }

    private ODataRequest request(
            HttpServletRequest http, ServiceAddress address, ODataContext exchange) {
        var request = new ODataRequest();
        if (http.getHeader(HttpHeader.X_HTTP_METHOD) != null) {
            throw Refusals.notOffered(
                    "%s is not offered; use the method itself."
                            .formatted(HttpHeader.X_HTTP_METHOD));
        }
        request.setMethod(method(http.getMethod().toUpperCase(Locale.ROOT)));
        request.setProtocol(http.getProtocol());
        for (var name : Collections.list(http.getHeaderNames())) {
            request.addHeader(name, Collections.list(http.getHeaders(name)));
        }
        request.setRawBaseUri(exchange.root());
        request.setRawODataPath(address.behind());
        var query = http.getQueryString();
        request.setRawQueryPath(query);
        request.setRawRequestUri(
                exchange.root() + request.getRawODataPath() + (query == null ? "" : "?" + query));
        try {
            request.setBody(new ByteArrayInputStream(json.bytes(http.getInputStream())));
        } catch (IOException e) {
            throw Refusals.bad("The body could not be read to its end.");
        }
        return request;
    }

    private static HttpMethod method(String name) {
        try {
            return HttpMethod.valueOf(name);
        } catch (IllegalArgumentException _) {
            throw Refusals.bad("There is no method %s.".formatted(Quoted.of(name)));
        }
    }

    /** Sends an answer. */
    public static void write(ODataResponse response, HttpServletResponse answer, String version)
            throws IOException {
        answer.setStatus(response.getStatusCode());
        response.getAllHeaders()
                .forEach((name, values) -> values.forEach(value -> answer.addHeader(name, value)));
        answer.setHeader(HttpHeader.ODATA_VERSION, version);
        if (response.getStatusCode() == HttpStatus.SERVICE_UNAVAILABLE.value()) {
            answer.setHeader(HttpHeaders.RETRY_AFTER, "1");
        }
        if (response.getContent() != null) {
            response.getContent().transferTo(answer.getOutputStream());
        } else if (response.getODataContent() != null) {
            response.getODataContent().write(answer.getOutputStream());
        }
    }
}
