package sandpiper.server.odata;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.uri.UriInfo;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.port.Session;
import sandpiper.engine.record.Query;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.json.JsonReader;
import sandpiper.server.json.JsonText;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.request.Format;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.problem.ProblemException;

/** Reads what an address and its options ask for. */
public record ODataReads(ODataContext exchange) {

    /**
     * A record that was found, and what of it is answered.
     *
     * @param context what stands behind its set in a context URL
     */
    record Found(Projection wanted, RecordView view, EntityWriter writer, String context) {

        /** Its members as a client gets them, for what is asked of its inside alone. */
        Map<String, @Nullable Object> entity() {
            return JsonReader.OWN.object(JsonText.bytes(to -> writer.write(to, view)));
        }

        /** From the root of the service. */
        String address() {
            return writer.address(view);
        }
    }

    /** The record of an address, read as far as what is asked for inside it. */
    Found record(Address address, UriInfo uri, Format format) {
        return exchange.engine()
                .records()
                .read((live, session) -> {
                    var call = exchange.call(address.set());
                    var available =
                            call.resource(live, Operation.READ).tree(Operation.READ).orElseThrow();
                    var shape = exchange.model().shape(address.set());
                    boolean root = address.references().isEmpty() && address.items() == null;
                    var form =
                            root
                                    ? exchange.forms()
                                            .of(
                                                    address.set(),
                                                    shape,
                                                    format,
                                                    available,
                                                    FieldTree.EMPTY,
                                                    uri)
                                    : EntityForms.Form.of(
                                            address.set(),
                                            format,
                                            toward(
                                                    shape,
                                                    address.references(),
                                                    address,
                                                    available,
                                                    uri),
                                            available);
                    return new Found(
                            form.wanted(),
                            call.read(live, session, address.oneKey(), form.tree()),
                            form.writer(),
                            form.context());
                });
    }

    private static Projection toward(
            EntityShape shape,
            List<String> steps,
            Address address,
            FieldTree available,
            UriInfo uri) {
        if (!steps.isEmpty()) {
            var one = shape.reference(steps.getFirst()).orElseThrow();
            var further = steps.subList(1, steps.size());
            return Projection.step(
                    shape,
                    new Projection.Expanded(
                            one, toward(one.target(), further, address, available, uri)));
        }
        if (address.items() == null) {
            return Projection.of(shape, available, uri.getSelectOption(), uri.getExpandOption());
        }
        var items = shape.items(address.items()).orElseThrow();
        var part =
                available
                        .part(items.name())
                        .orElseThrow(
                                () -> Refusals.bad("%s are not shown.".formatted(items.name())));
        if (uri.getFilterOption() != null
                || uri.getOrderByOption() != null
                || uri.getSearchOption() != null
                || uri.getApplyOption() != null) {
            throw Refusals.notOffered(
                    "Line items of a record are not filtered, sorted, searched or grouped; ask for"
                            + " all of them.");
        }
        int skip = uri.getSkipOption() == null ? 0 : uri.getSkipOption().getValue();
        return Projection.step(
                shape,
                new Projection.ExpandedItems(
                        items,
                        Projection.of(
                                items.target(),
                                new FieldTree(part.paths(), List.of()),
                                uri.getSelectOption(),
                                uri.getExpandOption()),
                        skip,
                        uri.getTopOption() == null ? null : uri.getTopOption().getValue(),
                        uri.getCountOption() != null && uri.getCountOption().getValue(),
                        true));
    }

    /** What an address leads to inside a record, or nothing when it is empty there. */
    static Optional<Object> inside(Address address, Map<String, @Nullable Object> entity) {
        @Nullable Object at = entity;
        for (var step : address.references()) {
            at = at instanceof Map<?, ?> map ? map.get(step) : null;
        }
        if (address.items() != null) {
            at = at instanceof Map<?, ?> map ? map.get(address.items()) : null;
            var line = address.line();
            if (line != null) {
                at = line(at, line);
            }
        }
        for (var step : address.properties()) {
            at = at instanceof Map<?, ?> map ? map.get(step) : null;
        }
        return Optional.ofNullable(at);
    }

    private static Object line(@Nullable Object items, long line) {
        if (items instanceof List<?> list) {
            for (var item : list) {
                if (item instanceof Map<?, ?> one
                        && String.valueOf(one.get(EntityShape.LINE)).equals(String.valueOf(line))) {
                    return one;
                }
            }
        }
        throw new ProblemException(
                HttpStatus.NOT_FOUND, "There is no line item %d.".formatted(line));
    }

    /** How many records meet the conditions of a request. */
    long count(Address address, UriInfo uri) {
        return exchange.engine()
                .records()
                .read((live, session) -> {
                    var call = exchange.call(address.set());
                    var options = new QueryOptions(exchange, address.set(), uri);
                    var page = page(live, session, options.query(live, call, 1, true, null));
                    return page.total() == null ? 0 : page.total();
                });
    }

    /** A page of records, with where the next one is, as JSON. */
    byte[] page(Address address, UriInfo uri, ODataRequest request, Format format) {
        var options = new QueryOptions(exchange, address.set(), uri);
        int limit = options.limit(request.getHeaders(HttpHeader.PREFER));
        return exchange.engine()
                .records()
                .read((live, session) -> {
                    var call = exchange.call(address.set());
                    var usual =
                            call.resource(live, Operation.QUERY)
                                    .tree(Operation.QUERY)
                                    .orElseThrow();
                    var form =
                            exchange.forms()
                                    .of(
                                            address.set(),
                                            exchange.model().shape(address.set()),
                                            format,
                                            usual,
                                            call.alsoReadable(live),
                                            uri);
                    boolean counted =
                            uri.getCountOption() != null && uri.getCountOption().getValue();
                    var query = options.query(live, call, Math.max(limit, 1), counted, form.tree());
                    var page = page(live, session, query);
                    var next =
                            page.next() != null && options.wantsMoreThan(limit)
                                    ? options.next(request, page.next(), limit)
                                    : null;
                    return JsonText.bytes(to -> {
                        to.writeStartObject();
                        exchange.context(to, format, address.set() + form.context());
                        if (page.total() != null) {
                            to.writeName("@odata.count");
                            JsonText.write(to, format.number(page.total()));
                        }
                        to.writeArrayPropertyStart("value");
                        page.records().stream()
                                .limit(limit)
                                .forEach(view -> form.writer().write(to, view));
                        to.writeEndArray();
                        if (next != null) {
                            to.writeStringProperty("@odata.nextLink", next);
                        }
                        to.writeEndObject();
                    });
                });
    }

    /** A record of a set, as JSON. */
    byte[] entity(Address address, Found found, Format format) {
        return exchange.entity(
                found.writer(), found.view(), format, address.set() + found.context() + "/$entity");
    }

    private sandpiper.engine.record.Page page(LiveRelease live, Session session, Query query) {
        return exchange.engine().records().page(live, session, query);
    }

    /** Line items of one record. */
    Map<String, @Nullable Object> items(Address address, UriInfo uri, Format format) {
        var found = record(address, uri, format);
        var entity = found.entity();
        var wanted = found.wanted();
        for (int i = 0; i < address.references().size(); i++) {
            wanted = wanted.references().getFirst().inside();
        }
        var items = wanted.items().getFirst();
        var body = new LinkedHashMap<String, @Nullable Object>();
        var count = entity.get(address.items() + "@odata.count");
        if (count != null) {
            body.put("@odata.count", count);
        }
        body.put("value", inside(address, entity).orElse(List.of()));
        return exchange.with(
                format,
                "%s/%s%s".formatted(found.address(), address.items(), items.inside().contextList()),
                body);
    }
}
