package sandpiper.server.odata;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.apache.olingo.commons.api.format.ContentType;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.commons.api.http.HttpMethod;
import org.apache.olingo.server.api.OData;
import org.apache.olingo.server.api.ODataHandler;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.ODataResponse;
import org.apache.olingo.server.api.ServiceMetadata;
import org.apache.olingo.server.api.serializer.RepresentationType;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.Quoted;
import sandpiper.server.intake.PublicAddress;
import sandpiper.server.json.JsonReader;
import sandpiper.server.odata.metadata.Annotations;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.odata.request.Negotiation;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.odata.request.RequestForm;
import sandpiper.server.problem.Failure;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.security.RateLimits;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.ReleaseChoice;
import sandpiper.server.service.RevisionParameter;

/** Every service over OData 4.01. What there is is looked up in the live release at each call. */
@RestController
public class ODataController {
    private final PublicAddress addresses;
    private final RateLimits limits;
    private static final String SERVICE = "{service:[a-z0-9-]+}/v{version:\\d{1,3}}";
    private final Engine engine;
    private final Cursors cursors;
    private final JsonReader json;
    private final OData odata = OData.newInstance();
    private final Map<String, ServiceModel> models = new ConcurrentHashMap<>();
    private volatile int release = -1;

    ODataController(
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

    /** The contract, for people who are signed in. */
    @Operation(summary = "The contract, for people who are signed in")
    @GetMapping("/manage/v1/contracts/" + SERVICE + "/odata")
    void contract(
            @PathVariable String service,
            @PathVariable int version,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest http,
            HttpServletResponse answer)
            throws IOException {
        var exchange = exchange(service, version, of, actor, http);
        var request = new ODataRequest();
        request.setMethod(HttpMethod.GET);
        request.setRawBaseUri(exchange.root());
        request.setRawODataPath("/$metadata");
        request.setRawRequestUri(exchange.root() + "/$metadata");
        var format = http.getParameter("format");
        request.setHeader(
                HttpHeader.ACCEPT, "json".equals(format) ? "application/json" : "application/xml");
        var spoken = Negotiation.NEWEST;
        write(new Run(exchange, spoken).handle(request), answer, spoken);
    }

    /** Requests to try a service with. */
    @Operation(summary = "Requests to try a service with")
    @GetMapping("/manage/v1/contracts/" + SERVICE + "/odata-examples")
    List<ODataExamples.Example> examples(
            @PathVariable String service,
            @PathVariable int version,
            @RequestParam(defaultValue = "LIVE") ReleaseChoice.Source of,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest http) {
        return ODataExamples.of(exchange(service, version, of, actor, http).model());
    }

    @RequestMapping({Protocol.ODATA_AT + SERVICE, Protocol.ODATA_AT + SERVICE + "/**"})
    void call(
            @PathVariable String service,
            @PathVariable int version,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest http,
            HttpServletResponse answer)
            throws IOException {
        var spoken = Negotiation.NEWEST;
        try {
            spoken = Negotiation.version(http.getHeader(HttpHeader.ODATA_MAX_VERSION));
            var exchange = exchange(service, version, ReleaseChoice.Source.LIVE, actor, http);
            var request = request(http, exchange);
            var run = new Run(exchange, spoken);
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

    private ODataContext exchange(
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
        var model =
                isLive
                        ? model(
                                live,
                                RevisionParameter.narrow(engine, live, type, revision),
                                revision)
                        : new ServiceModel(from, type);
        return new ODataContext(engine, cursors, json, limits, actor, model, revision, server);
    }

    private ServiceModel model(
            LiveRelease live, sandpiper.model.release.ServiceType type, int revision) {
        if (release != live.number()) {
            models.clear();
            release = live.number();
        }
        return models.computeIfAbsent(
                "%s/%d".formatted(type.titled(), revision),
                _ -> new ServiceModel(live.release(), type));
    }

    private ODataRequest request(HttpServletRequest http, ODataContext exchange) {
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
        var home =
                http.getContextPath()
                        + Protocol.ODATA.address(
                                exchange.model().service().name(),
                                exchange.model().service().version());
        request.setRawBaseUri(exchange.root());
        request.setRawODataPath(http.getRequestURI().substring(home.length()));
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

    /** The handling of one request over HTTP, which may hold several. */
    private final class Run {
        private final ODataContext exchange;
        private final String version;
        private final ODataErrors failures = new ODataErrors();
        private final ChangeRun changeRun;
        private final Batches batches;

        Run(ODataContext exchange, String version) {
            this.exchange = exchange;
            this.version = version;
            this.changeRun = new ChangeRun(exchange, failures);
            this.batches = new Batches(odata, exchange.root(), changeRun, this::refusal);
        }

        ODataResponse handle(ODataRequest request) {
            prepare(request);
            return processed(request);
        }

        /** The answer to one of a batch, where what is refused leaves the others be. */
        private ODataResponse handleInner(ODataRequest request) {
            var refusal = refusal(request);
            if (refusal.isPresent()) {
                refusal.get().setHeader(HttpHeader.ODATA_VERSION, version);
                return refusal.get();
            }
            return processed(request);
        }

        private ODataResponse processed(ODataRequest request) {
            var response = handler(metadata(request)).process(request);
            response.setHeader(HttpHeader.ODATA_VERSION, version);
            if (request.getRawODataPath().equals("/$metadata")) {
                MetadataForm.unify(response, exchange, version);
            }
            if (response.getStatusCode() == HttpStatus.METHOD_NOT_ALLOWED.value()) {
                EntityMethods.at(exchange.model(), request.getRawODataPath())
                        .ifPresent(all -> response.setHeader(HttpHeader.ALLOW, all));
            }
            return response;
        }

        /** Brings a request, which may be one of a batch, to the form that the library knows. */
        private void prepare(ODataRequest request) {
            RequestForm.unify(request, exchange.root());
            qualify(request);
        }

        /** Brings one of a batch to that form, or says why it cannot be followed. */
        private Optional<ODataResponse> refusal(ODataRequest request) {
            try {
                prepare(request);
                RequestForm.requireNoRevision(request);
                return Optional.empty();
            } catch (RuntimeException e) {
                var response = new ODataResponse();
                var what = request.getMethod() + " " + request.getRawODataPath();
                failures.write(response, Failure.of(e, what), null);
                return Optional.of(response);
            }
        }

        /**
         * What the library knows of the service. Only the document, which a batch may ask for as
         * well, tells from where its vocabularies come, by the address this request came to.
         */
        private ServiceMetadata metadata(ODataRequest request) {
            var path = request.getRawODataPath();
            return path.equals("/$metadata") || path.equals("/$batch")
                    ? odata.createServiceMetadata(
                            exchange.model(), Annotations.references(exchange.server()))
                    : exchange.model()
                            .metadata(model -> odata.createServiceMetadata(model, List.of()));
        }

        private ODataHandler handler(ServiceMetadata metadata) {
            var handler = odata.createRawHandler(metadata);
            handler.register(
                    new RecordProcessor(
                            exchange, changeRun, new Changes(exchange, odata, metadata)));
            handler.register(batches);
            handler.register(failures);
            handler.register(
                    (org.apache.olingo.server.api.serializer.CustomContentTypeSupport)
                            ODataController::formats);
            return handler;
        }

        /**
         * What is called on a record may be called by its plain name, which the library does not
         * know.
         */
        private void qualify(ODataRequest request) {
            var path = request.getRawODataPath();
            int slash = path.lastIndexOf('/');
            if (slash <= 0) {
                return;
            }
            var last = path.substring(slash + 1);
            // A function has its arguments behind its name.
            int bracket = last.indexOf('(');
            var name = bracket < 0 ? last : last.substring(0, bracket);
            var rest = bracket < 0 ? "" : last.substring(bracket);
            if (request.getMethod() == HttpMethod.POST || bracket >= 0) {
                exchange.model()
                        .qualified(name)
                        .ifPresent(full ->
                                request.setRawODataPath(
                                        path.substring(0, slash + 1) + full + rest));
            }
        }

        ODataResponse jsonBatch(ODataRequest request) {
            var body = json.object(json.bytes(request.getBody()));
            var batch = new JsonBatch(exchange.root(), this::handleInner, changeRun, batches);
            var response = new ODataResponse();
            ODataResponses.json(
                    response,
                    HttpStatus.OK,
                    ContentType.APPLICATION_JSON,
                    batch.run(body, Batches.goesOn(request)));
            return response;
        }
    }

    /** Entities are written and read in JSON only. */
    private static List<ContentType> formats(
            List<ContentType> usual, RepresentationType representation) {
        return switch (representation) {
            case METADATA, BATCH, ERROR, VALUE, COUNT -> usual;
            default -> usual.stream().filter(type -> type.getSubtype().equals("json")).toList();
        };
    }

    private static void write(ODataResponse response, HttpServletResponse answer, String version)
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
