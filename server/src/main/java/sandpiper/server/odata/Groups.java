package sandpiper.server.odata;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeKind;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.uri.UriInfo;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.Aggregation;
import sandpiper.engine.record.Aggregation.Measure;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.json.JsonText;
import sandpiper.server.odata.metadata.EdmTypes;
import sandpiper.server.odata.query.AppliedGroups;
import sandpiper.server.odata.request.Format;

/** Answers {@code $apply}: what groups of the records of a set come to. */
record Groups(ODataContext exchange) {

    /** A page of groups, with where the next one is, as JSON. */
    byte[] page(Address address, UriInfo uri, ODataRequest request, Format format) {
        return exchange.engine()
                .records()
                .read((live, session) -> {
                    var call = exchange.call(address.set());
                    var shown =
                            call.resource(live, Operation.QUERY)
                                    .tree(Operation.QUERY)
                                    .orElseThrow()
                                    .and(call.alsoReadable(live));
                    var asked = AppliedGroups.of(exchange.model().shape(address.set()), shown, uri);
                    var options = new QueryOptions(exchange, address.set(), uri, asked);
                    int limit = options.limit(request.getHeaders(HttpHeader.PREFER));
                    int from = options.from(call);
                    var rows =
                            exchange.engine()
                                    .records()
                                    .aggregate(
                                            live,
                                            session,
                                            options.query(live, call, 1, false, null),
                                            wanted(asked, from, limit + 1));
                    var next =
                            rows.size() > limit && options.wantsMoreThan(limit)
                                    ? options.next(request, List.of((long) from + limit), limit)
                                    : null;
                    return JsonText.bytes(to -> {
                        to.writeStartObject();
                        exchange.context(to, format, address.set() + asked.contextList());
                        to.writeArrayPropertyStart("value");
                        rows.stream()
                                .limit(limit)
                                .forEach(row -> JsonText.write(to, group(asked, row, format)));
                        to.writeEndArray();
                        if (next != null) {
                            to.writeStringProperty("@odata.nextLink", next);
                        }
                        to.writeEndObject();
                    });
                });
    }

    private static Aggregation wanted(AppliedGroups asked, int from, int limit) {
        return new Aggregation(
                asked.keys().stream().map(key -> new Aggregation.Key(key.path(), false)).toList(),
                asked.measures().stream().map(AppliedGroups.Alias::measure).toList(),
                asked.orders(),
                from,
                limit);
    }

    /** A group has no address, which is said with a null id (JSON Format 4.01 §4.5.8). */
    private static Map<String, @Nullable Object> group(
            AppliedGroups asked, Aggregation.Row row, Format format) {
        var members = new LinkedHashMap<String, @Nullable Object>();
        if (format.annotates()) {
            members.put("@odata.id", null);
        }
        for (int i = 0; i < asked.keys().size(); i++) {
            var key = asked.keys().get(i);
            var value = PlainRecords.write(key.path().last(), row.keys().get(i));
            put(members, key.steps(), format.value(value));
        }
        for (int i = 0; i < asked.measures().size(); i++) {
            var alias = asked.measures().get(i);
            if (format.annotates()) {
                members.put(alias.name() + "@odata.type", "#" + kind(alias.measure()).name());
            }
            members.put(alias.name(), format.value(plain(alias.measure(), row.measures().get(i))));
        }
        return members;
    }

    @SuppressWarnings("unchecked") // Where steps go on only such maps were put.
    private static void put(
            Map<String, @Nullable Object> members, List<String> steps, @Nullable Object value) {
        var at = members;
        for (var step : steps.subList(0, steps.size() - 1)) {
            at =
                    (Map<String, @Nullable Object>)
                            at.computeIfAbsent(step, _ -> new LinkedHashMap<String, Object>());
        }
        at.put(steps.getLast(), value);
    }

    private static @Nullable Object plain(Measure measure, @Nullable Object worked) {
        return switch (measure.function()) {
            case MIN, MAX ->
                    PlainRecords.write(Objects.requireNonNull(measure.of()).last(), worked);
            case COUNT, SUM, AVERAGE, DISTINCT -> worked;
        };
    }

    private static EdmPrimitiveTypeKind kind(Measure measure) {
        return switch (measure.function()) {
            case COUNT, DISTINCT -> EdmPrimitiveTypeKind.Int64;
            case SUM, AVERAGE -> EdmPrimitiveTypeKind.Decimal;
            case MIN, MAX -> EdmTypes.primitive(Objects.requireNonNull(measure.of()).last().type());
        };
    }
}
