package sandpiper.server.odata;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.olingo.commons.api.format.ContentType;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.server.api.OData;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.ODataResponse;
import org.apache.olingo.server.api.ServiceMetadata;
import org.apache.olingo.server.api.processor.ActionComplexCollectionProcessor;
import org.apache.olingo.server.api.processor.ActionComplexProcessor;
import org.apache.olingo.server.api.processor.ActionEntityProcessor;
import org.apache.olingo.server.api.processor.ActionPrimitiveCollectionProcessor;
import org.apache.olingo.server.api.processor.ActionPrimitiveProcessor;
import org.apache.olingo.server.api.processor.ActionVoidProcessor;
import org.apache.olingo.server.api.processor.ComplexProcessor;
import org.apache.olingo.server.api.processor.CountEntityCollectionProcessor;
import org.apache.olingo.server.api.processor.EntityProcessor;
import org.apache.olingo.server.api.processor.PrimitiveValueProcessor;
import org.apache.olingo.server.api.uri.UriInfo;
import org.apache.olingo.server.api.uri.UriResourceFunction;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.server.odata.request.Format;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.service.Preconditions;

/** Answers requests whose address the library has read. */
public final class RecordProcessor
        implements CountEntityCollectionProcessor,
                EntityProcessor,
                PrimitiveValueProcessor,
                ComplexProcessor,
                ActionEntityProcessor,
                ActionVoidProcessor,
                ActionPrimitiveProcessor,
                ActionPrimitiveCollectionProcessor,
                ActionComplexProcessor,
                ActionComplexCollectionProcessor {
    private final ODataContext exchange;
    private final ChangeRun run;
    private final Changes changes;
    private final ODataReads reads;

    RecordProcessor(ODataContext exchange, ChangeRun run, Changes changes) {
        this.exchange = exchange;
        this.run = run;
        this.changes = changes;
        this.reads = new ODataReads(exchange);
    }

    @Override
    public void init(OData odata, ServiceMetadata metadata) {
        // has what it needs
    }

    private Address address(UriInfo uri) {
        return Address.of(exchange.model(), uri.asUriInfoResource());
    }

    @Override
    public void readEntityCollection(
            ODataRequest request, ODataResponse response, UriInfo uri, ContentType type) {
        var address = address(uri);
        var format = Format.of(type);
        if (address.key() == null) {
            QueryOptions.preferredPage(
                            request.getHeaders(HttpHeader.PREFER), exchange.json().bounds())
                    .ifPresent(size ->
                            response.setHeader(
                                    HttpHeader.PREFERENCE_APPLIED, "maxpagesize=" + size));
        }
        if (address.key() == null) {
            var page =
                    uri.getApplyOption() == null
                            ? reads.page(address, uri, request, format)
                            : new Groups(exchange).page(address, uri, request, format);
            ODataResponses.bytes(response, HttpStatus.OK, type, page);
        } else {
            ODataResponses.json(response, HttpStatus.OK, type, reads.items(address, uri, format));
        }
    }

    @Override
    public void countEntityCollection(ODataRequest request, ODataResponse response, UriInfo uri) {
        var address = address(uri);
        long count =
                address.key() == null
                        ? reads.count(address, uri)
                        : reads.items(address, uri, Format.of(ContentType.JSON)).get("value")
                                        instanceof List<?> list
                                ? list.size()
                                : 0;
        ODataResponses.text(response, HttpStatus.OK, ContentType.TEXT_PLAIN, String.valueOf(count));
    }

    @Override
    public void readEntity(
            ODataRequest request, ODataResponse response, UriInfo uri, ContentType type) {
        var address = address(uri);
        var format = Format.of(type);
        var found = reads.record(address, uri, format);
        boolean root = address.references().isEmpty() && address.items() == null;
        if (root) {
            response.setHeader(HttpHeader.ETAG, Preconditions.tag(found.view().version()));
            if (Preconditions.isFresh(
                    request.getHeader(HttpHeader.IF_NONE_MATCH), found.view().version())) {
                ODataResponses.empty(response, HttpStatus.NOT_MODIFIED);
                return;
            }
            ODataResponses.bytes(
                    response, HttpStatus.OK, type, reads.entity(address, found, format));
            return;
        }
        var inside = ODataReads.inside(address, found.entity());
        if (inside.isEmpty()) {
            ODataResponses.empty(response, HttpStatus.NO_CONTENT);
            return;
        }
        ODataResponses.json(
                response,
                HttpStatus.OK,
                type,
                exchange.with(format, context(address, found), members(inside.get())));
    }

    private static String context(Address address, ODataReads.Found found) {
        var at = found.wanted();
        for (int i = 0; i < address.references().size(); i++) {
            at = at.references().getFirst().inside();
        }
        return address.items() == null
                ? at.shape().type().getFullQualifiedNameAsString() + at.contextList()
                : "%s/%s%s/$entity"
                        .formatted(
                                found.address(),
                                address.items(),
                                at.items().getFirst().inside().contextList());
    }

    private static Map<String, @Nullable Object> members(Object entity) {
        var members = new LinkedHashMap<String, @Nullable Object>();
        if (entity instanceof Map<?, ?> map) {
            map.forEach((name, member) -> members.put(String.valueOf(name), member));
        }
        return members;
    }

    @Override
    public void createEntity(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        var types = new Changes.Types(sent, answered);
        run.take(changes.create(address(uri), uri, request, types), response);
    }

    @Override
    public void updateEntity(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        var types = new Changes.Types(sent, answered);
        run.take(changes.update(address(uri), uri, request, types), response);
    }

    @Override
    public void deleteEntity(ODataRequest request, ODataResponse response, UriInfo uri) {
        run.take(changes.remove(address(uri), request), response);
    }

    @Override
    public void processActionEntity(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        act(request, response, uri, sent, answered);
    }

    private void act(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        run.take(changes.act(uri, request, new Changes.Types(sent, answered)), response);
    }

    @Override
    public void processActionVoid(
            ODataRequest request, ODataResponse response, UriInfo uri, ContentType sent) {
        act(request, response, uri, sent, ContentType.JSON);
    }

    @Override
    public void processActionPrimitive(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        act(request, response, uri, sent, answered);
    }

    @Override
    public void processActionPrimitiveCollection(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        act(request, response, uri, sent, answered);
    }

    @Override
    public void processActionComplex(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        act(request, response, uri, sent, answered);
    }

    @Override
    public void processActionComplexCollection(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        act(request, response, uri, sent, answered);
    }

    /** A function is called like an action, with its arguments in the address. */
    private static boolean isFunction(UriInfo uri) {
        return uri.getUriResourceParts().getLast() instanceof UriResourceFunction;
    }

    @Override
    public void readPrimitive(
            ODataRequest request, ODataResponse response, UriInfo uri, ContentType type) {
        if (isFunction(uri)) {
            act(request, response, uri, ContentType.JSON, type);
            return;
        }
        var address = address(uri);
        var file = ODataFiles.at(exchange.model(), address);
        if (file.isPresent()) {
            new ODataFiles(exchange).read(address, file.get(), request, response);
            return;
        }
        var found = reads.record(address, uri, Format.of(type));
        var inside = ODataReads.inside(address, found.entity());
        if (inside.isEmpty()) {
            ODataResponses.empty(response, HttpStatus.NO_CONTENT);
            return;
        }
        var body = new LinkedHashMap<String, @Nullable Object>();
        if (inside.get() instanceof Map<?, ?>) {
            body.putAll(members(inside.get()));
        } else {
            body.put("value", inside.get());
        }
        var path = new StringBuilder(found.address());
        address.references().forEach(step -> path.append('/').append(step));
        if (address.items() != null) {
            path.append('/').append(address.items()).append("(%s)".formatted(address.line()));
        }
        address.properties().forEach(step -> path.append('/').append(step));
        ODataResponses.json(
                response,
                HttpStatus.OK,
                type,
                exchange.with(Format.of(type), path.toString(), body));
    }

    @Override
    public void readComplex(
            ODataRequest request, ODataResponse response, UriInfo uri, ContentType type) {
        readPrimitive(request, response, uri, type);
    }

    @Override
    public void readPrimitiveValue(
            ODataRequest request, ODataResponse response, UriInfo uri, ContentType type) {
        var address = address(uri);
        if (ODataFiles.at(exchange.model(), address).isPresent()) {
            readPrimitive(request, response, uri, type);
            return;
        }
        var found = reads.record(address, uri, Format.of(ContentType.JSON));
        var inside = ODataReads.inside(address, found.entity());
        if (inside.isEmpty()) {
            ODataResponses.empty(response, HttpStatus.NO_CONTENT);
        } else {
            ODataResponses.text(
                    response, HttpStatus.OK, ContentType.TEXT_PLAIN, String.valueOf(inside.get()));
        }
    }

    @Override
    public void updatePrimitive(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        var types = new Changes.Types(sent, answered);
        run.take(changes.set(address(uri), uri, request, false, types), response);
    }

    @Override
    public void deletePrimitive(ODataRequest request, ODataResponse response, UriInfo uri) {
        var types = new Changes.Types(ContentType.JSON, ContentType.JSON);
        run.take(changes.set(address(uri), uri, request, true, types), response);
    }

    @Override
    public void updateComplex(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        throw Refusals.notOffered("Change the record that has this value.");
    }

    @Override
    public void deleteComplex(ODataRequest request, ODataResponse response, UriInfo uri) {
        deletePrimitive(request, response, uri);
    }

    @Override
    public void updatePrimitiveValue(
            ODataRequest request,
            ODataResponse response,
            UriInfo uri,
            ContentType sent,
            ContentType answered) {
        throw Refusals.notOffered("Change the value without /$value, as JSON.");
    }

    @Override
    public void deletePrimitiveValue(ODataRequest request, ODataResponse response, UriInfo uri) {
        deletePrimitive(request, response, uri);
    }
}
