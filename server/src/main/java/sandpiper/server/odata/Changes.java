package sandpiper.server.odata;

import java.io.ByteArrayInputStream;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.apache.olingo.commons.api.ex.ODataException;
import org.apache.olingo.commons.api.format.ContentType;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.commons.api.http.HttpMethod;
import org.apache.olingo.server.api.OData;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.ServiceMetadata;
import org.apache.olingo.server.api.uri.UriInfo;
import org.apache.olingo.server.api.uri.UriResourceEntitySet;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import sandpiper.engine.command.Expected;
import sandpiper.engine.record.RecordView;
import sandpiper.model.Names;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.type.FileType;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.service.FilePlace;
import sandpiper.server.service.FileTransfer;
import sandpiper.server.service.IdempotencyKey;
import sandpiper.server.service.Preconditions;
import sandpiper.server.service.Traced;
import sandpiper.server.service.Writes;

/** Reads what shall be changed. */
public record Changes(ODataContext exchange, OData odata, ServiceMetadata metadata) {

    Change create(Address address, UriInfo uri, ODataRequest request, Types types) {
        if (address.key() != null) {
            throw Refusals.notOffered(
                    "Line items are added by changing their record: PATCH it with all of them.");
        }
        var call = exchange.call(address.set());
        var body = body(request);
        var values = values(address.set(), body, types.request(), true);
        var id = exchange.engine().records().newId();
        return new Change(
                        address.set(),
                        call,
                        live -> call.create(live, values, id),
                        answered(uri, types.response(), body, address.set(), request),
                        isTraced(request),
                        once(request))
                .making(made(address.set(), values, id));
    }

    private @Nullable String made(String set, Map<String, @Nullable Object> values, UUID id) {
        var key = MadeEntity.key(exchange.model().shape(set), values, id);
        return key == null ? null : set + key;
    }

    /** PATCH changes what is given; PUT empties what is not. */
    Change update(Address address, UriInfo uri, ODataRequest request, Types types) {
        whole(address);
        var call = exchange.call(address.set());
        var key = address.oneKey();
        var body = body(request);
        var values = values(address.set(), body, types.request(), false);
        boolean isPatch = request.getMethod() == HttpMethod.PATCH;
        if (!isPatch) {
            emptyTheRest(address.set(), values);
        }
        var expected =
                Preconditions.expected(
                        request.getHeader(HttpHeader.IF_MATCH),
                        request.getHeader(HttpHeader.IF_NONE_MATCH));
        boolean mayCreate =
                request.getHeader(HttpHeader.IF_MATCH) == null && isMadeByKey(address.set());
        return new Change(
                address.set(),
                call,
                live ->
                        mayCreate && call.isGranted(Operation.CREATE)
                                ? call.save(live, key, values, isPatch, expected)
                                : call.change(live, key, values, expected),
                answered(uri, types.response(), body, address.set(), request),
                isTraced(request),
                once(request));
    }

    /** Changing one value by its own address; {@code null} empties it. */
    Change set(Address address, UriInfo uri, ODataRequest request, boolean emptied, Types types) {
        var file = ODataFiles.at(exchange.model(), address);
        if (file.isPresent()) {
            return file(address, file.get(), request, emptied);
        }
        var name = address.properties().getFirst();
        if (!address.references().isEmpty() || address.items() != null) {
            throw Refusals.notOffered("Only values of the record itself are changed so.");
        }
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put(name, emptied ? null : body(request).get("value"));
        var values = values(address.set(), body, types.request(), false);
        if (values.isEmpty()) {
            throw Refusals.bad("%s is set by the service only.".formatted(name));
        }
        var call = exchange.call(address.set());
        var expected =
                Preconditions.expected(
                        request.getHeader(HttpHeader.IF_MATCH),
                        request.getHeader(HttpHeader.IF_NONE_MATCH));
        return new Change(
                address.set(),
                call,
                live -> call.change(live, address.oneKey(), values, expected),
                null,
                isTraced(request),
                once(request));
    }

    private Change file(Address address, FilePlace place, ODataRequest request, boolean emptied) {
        var files = new ODataFiles(exchange);
        var call = exchange.call(address.set());
        var asked =
                Preconditions.expected(
                        request.getHeader(HttpHeader.IF_MATCH),
                        request.getHeader(HttpHeader.IF_NONE_MATCH));
        var file =
                emptied
                        ? null
                        : FileTransfer.read(
                                request.getHeader(HttpHeaders.CONTENT_DISPOSITION),
                                request.getHeader(HttpHeader.CONTENT_TYPE),
                                bytes(request),
                                place.field());
        var view = place.part() == null ? null : files.lines(address, place);
        var expected =
                asked == null && view != null
                        ? new Expected.Versions(Set.of(view.version()))
                        : asked;
        return new Change(
                address.set(),
                call,
                live -> call.change(live, address.oneKey(), place.change(view, file), expected),
                null,
                isTraced(request),
                once(request));
    }

    Change remove(Address address, ODataRequest request) {
        whole(address);
        var call = exchange.call(address.set());
        var expected =
                Preconditions.expected(
                        request.getHeader(HttpHeader.IF_MATCH),
                        request.getHeader(HttpHeader.IF_NONE_MATCH));
        return new Change(
                address.set(),
                call,
                live -> call.remove(live, address.oneKey(), expected),
                null,
                isTraced(request),
                once(request));
    }

    /** An action or function, on a record or on none. */
    Change act(UriInfo uri, ODataRequest request, Types types) {
        var parts = uri.getUriResourceParts();
        var values =
                ActionArguments.of(
                        parts.getLast(),
                        uri,
                        request.getBody() == null ? new byte[0] : bytes(request),
                        exchange.json(),
                        types.request());
        var answered = new Change.Answered(uri, types.response(), Set.of(), isBrief(request));
        if (parts.getFirst() instanceof UriResourceEntitySet) {
            var address = Address.of(exchange.model(), uri.asUriInfoResource());
            return act(address, values, answered, request);
        }
        var name = ActionArguments.name(parts.getLast());
        var call = exchange.functions();
        return new Change(
                null,
                call,
                live -> call.call(live, Names.address(name), values),
                answered,
                isTraced(request),
                once(request));
    }

    private Change act(
            Address address,
            Map<String, @Nullable Object> values,
            Change.Answered answered,
            ODataRequest request) {
        var call = exchange.call(address.set());
        var action = Objects.requireNonNull(address.action());
        var name =
                exchange.model()
                        .call(address.set(), action)
                        .map(one -> Names.address(one.name()))
                        .orElseThrow(() ->
                                Refusals.bad(
                                        "%s has no call %s.".formatted(address.set(), action)));
        var expected =
                Preconditions.expected(
                        request.getHeader(HttpHeader.IF_MATCH),
                        request.getHeader(HttpHeader.IF_NONE_MATCH));
        return new Change(
                address.set(),
                call,
                live -> call.call(live, address.oneKey(), name, values, expected),
                answered,
                isTraced(request),
                once(request));
    }

    /** The content types of a request and its answer. */
    record Types(ContentType request, ContentType response) {}

    private static void whole(Address address) {
        if (address.items() != null || !address.references().isEmpty()) {
            throw Refusals.notOffered(
                    "Change the record itself; what it holds or refers to is not changed through"
                            + " it one by one.");
        }
    }

    /** A record whose key is given by who makes it can be made where it is addressed. */
    private boolean isMadeByKey(String set) {
        var resource = exchange.model().resource(set);
        return !exchange.model().shape(set).isKeyedById()
                && resource.tree(Operation.CREATE)
                        .filter(tree -> resource.object().key().stream().allMatch(tree::hasOwn))
                        .isPresent();
    }

    private void emptyTheRest(String set, Map<String, @Nullable Object> values) {
        exchange.model()
                .resource(set)
                .tree(Operation.UPDATE)
                .ifPresent(tree ->
                        tree.paths().stream()
                                // Streams are changed for themselves (Protocol 4.01 §11.4.3).
                                .filter(path -> !(path.last().type() instanceof FileType))
                                // The key stands in the address.
                                .filter(path ->
                                        !exchange.model().shape(set).key().contains(path.written()))
                                .forEach(path -> values.putIfAbsent(path.last().name(), null)));
    }

    private Map<String, @Nullable Object> body(ODataRequest request) {
        return exchange.json().object(bytes(request));
    }

    /** The body, which can be read again. */
    private byte[] bytes(ODataRequest request) {
        if (request.getBody() == null) {
            return new byte[0];
        }
        var bytes = exchange.json().bytes(request.getBody());
        request.setBody(new ByteArrayInputStream(bytes));
        return bytes;
    }

    private Writes.@Nullable Once once(ODataRequest request) {
        var key = IdempotencyKey.checked(request.getHeader(IdempotencyKey.HEADER));
        return key == null
                ? null
                : Writes.Once.of(
                        key,
                        String.valueOf(request.getMethod()),
                        request.getRawODataPath(),
                        bytes(request));
    }

    private Map<String, @Nullable Object> values(
            String set, Map<String, @Nullable Object> body, ContentType type, boolean creating) {
        var reader =
                new EntityReader(
                        "true".equals(type.getParameter("IEEE754Compatible")), this::keyOfLink);
        return reader.values(exchange.model().shape(set), body, creating);
    }

    private @Nullable String keyOfLink(EntityShape.ToOne reference, String link) {
        if (link.endsWith(")/" + reference.name())) {
            // As it was read: what the reference of an entity leads to now.
            return keyBehind(
                    reference, link.substring(0, link.length() - reference.name().length() - 1));
        }
        try {
            var entity =
                    odata.createUriHelper()
                            .parseEntityId(metadata.getEdm(), link, exchange.root() + "/");
            var set = entity.getEntitySet().getName();
            var target = exchange.model().resource(set).object();
            if (target.name().equals(reference.target().object().name())) {
                return Address.key(exchange.model().shape(set), entity.getKeyPredicates(), null);
            }
        } catch (ODataException | IllegalArgumentException _) {
            // answered below
        }
        throw Refusals.bad(
                "%s must be a link to an entity of this service that is a %s, but was %s."
                        .formatted(
                                reference.name(),
                                reference.target().object().label(),
                                sandpiper.logic.Quoted.of(link)));
    }

    private @Nullable String keyBehind(EntityShape.ToOne reference, String link) {
        try {
            var entity =
                    odata.createUriHelper()
                            .parseEntityId(metadata.getEdm(), link, exchange.root() + "/");
            var set = entity.getEntitySet().getName();
            var key = Address.key(exchange.model().shape(set), entity.getKeyPredicates(), null);
            var path =
                    exchange.model()
                            .shape(set)
                            .reference(reference.name())
                            .orElseThrow(IllegalArgumentException::new)
                            .path();
            var tree = new FieldTree(List.of(path), List.of());
            return exchange.engine()
                    .records()
                    .read((live, session) ->
                            exchange.call(set).read(live, session, key, tree).values()[0]
                                            instanceof RecordView.Link(var behind, _)
                                    ? behind
                                    : null);
        } catch (ODataException | IllegalArgumentException _) {
            throw Refusals.bad("%s leads to no entity.".formatted(sandpiper.logic.Quoted.of(link)));
        }
    }

    private Change.Answered answered(
            UriInfo uri,
            ContentType type,
            Map<String, @Nullable Object> body,
            String set,
            ODataRequest request) {
        var items = new TreeSet<String>();
        exchange.model().shape(set).items().stream()
                .map(EntityShape.Items::name)
                .filter(body::containsKey)
                .forEach(items::add);
        return new Change.Answered(uri, type, items, isBrief(request));
    }

    private static boolean isBrief(ODataRequest request) {
        var prefer = request.getHeaders(HttpHeader.PREFER);
        return prefer != null
                && List.copyOf(prefer).stream().anyMatch(one -> one.contains("return=minimal"));
    }

    private static boolean isTraced(ODataRequest request) {
        return "on".equalsIgnoreCase(request.getHeader(Traced.TRACE));
    }
}
