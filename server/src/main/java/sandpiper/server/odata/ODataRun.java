package sandpiper.server.odata;

import java.util.List;
import java.util.Optional;
import org.apache.olingo.commons.api.format.ContentType;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.commons.api.http.HttpMethod;
import org.apache.olingo.server.api.OData;
import org.apache.olingo.server.api.ODataHandler;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.ODataResponse;
import org.apache.olingo.server.api.ServiceMetadata;
import org.apache.olingo.server.api.serializer.CustomContentTypeSupport;
import org.apache.olingo.server.api.serializer.RepresentationType;
import org.springframework.http.HttpStatus;
import sandpiper.server.odata.metadata.Annotations;
import sandpiper.server.odata.request.RequestForm;
import sandpiper.server.problem.Failure;

/** The handling of one request over HTTP, which may hold several. */
public final class ODataRun {
    private final OData odata;
    private final ODataContext exchange;
    private final String version;
    private final ODataErrors failures = new ODataErrors();
    private final ChangeRun changeRun;
    private final Batches batches;

    ODataRun(OData odata, ODataContext exchange, String version) {
        this.odata = odata;
        this.exchange = exchange;
        this.version = version;
        this.changeRun = new ChangeRun(exchange, failures);
        this.batches = new Batches(odata, exchange.root(), changeRun, this::refusal);
    }

    /** Answers a request. */
    public ODataResponse handle(ODataRequest request) {
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
        RequestForm.unify(
                request,
                exchange.root(),
                ODataFiles.isFile(exchange.model(), request.getRawODataPath()));
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
     * What the library knows of the service. Only the document, which a batch may ask for as well,
     * tells from where its vocabularies come, by the address this request came to.
     */
    private ServiceMetadata metadata(ODataRequest request) {
        var path = request.getRawODataPath();
        return path.equals("/$metadata") || path.equals("/$batch")
                ? odata.createServiceMetadata(
                        exchange.model(), Annotations.references(exchange.server()))
                : exchange.model().metadata(model -> odata.createServiceMetadata(model, List.of()));
    }

    private ODataHandler handler(ServiceMetadata metadata) {
        var handler = odata.createRawHandler(metadata);
        handler.register(
                new RecordProcessor(exchange, changeRun, new Changes(exchange, odata, metadata)));
        handler.register(batches);
        handler.register(failures);
        handler.register((CustomContentTypeSupport) ODataRun::formats);
        return handler;
    }

    /**
     * What is called on a record may be called by its plain name, which the library does not know.
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
                            request.setRawODataPath(path.substring(0, slash + 1) + full + rest));
        }
    }

    ODataResponse jsonBatch(ODataRequest request) {
        var json = exchange.json();
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

    /** Entities are written and read in JSON only. */
    private static List<ContentType> formats(
            List<ContentType> usual, RepresentationType representation) {
        return switch (representation) {
            case METADATA, BATCH, ERROR, VALUE, COUNT -> usual;
            default -> usual.stream().filter(type -> type.getSubtype().equals("json")).toList();
        };
    }
}
