package sandpiper.server.odata;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeKind;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.type.FileType;
import sandpiper.model.type.KeptFile;
import sandpiper.server.json.JsonText;
import sandpiper.server.odata.metadata.EdmTypes;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.request.Format;
import sandpiper.server.service.FileTransfer;
import tools.jackson.core.JsonGenerator;

/**
 * Writes records of a set as entities in the JSON format of OData 4.01, with as much metadata as
 * was asked for. What stands where is found out once for all records of an answer.
 */
final class EntityWriter {
    private final String set;
    private final Format format;
    private final Projection wanted;
    private final EntityKey key;
    private final Inside record;
    private final List<ItemsWriter> items;

    /** What stands in an entity, a record that is referred to, or a line item. */
    private record Inside(EntityShape shape, List<Property> values, List<Link> references) {}

    /**
     * A property with a value.
     *
     * @param kind its type, where JSON alone does not tell that and it was asked for
     */
    private record Property(String name, Field field, int place, @Nullable String kind) {}

    /**
     * A record that is referred to.
     *
     * @param place of the reference itself, or below 0 when that is not shown
     */
    private record Link(String name, int place, Inside inside) {}

    /**
     * Line items.
     *
     * @param place of their list in a record
     */
    private record ItemsWriter(Projection.ExpandedItems wanted, int place, Inside inside) {}

    /**
     * @param tree what was read, with everything that is wanted and the key
     */
    EntityWriter(String set, Format format, Projection wanted, FieldTree tree) {
        this.set = set;
        this.format = format;
        this.wanted = wanted;
        var places = places(tree.paths());
        key = EntityKey.of(wanted.shape(), places);
        record = inside(wanted, places);
        items = new ArrayList<>();
        for (var one : wanted.items()) {
            int place = 0;
            while (!tree.parts().get(place).part().name().equals(one.items().name())) {
                place++;
            }
            var paths = places(tree.parts().get(place).paths());
            items.add(new ItemsWriter(one, place, inside(one.inside(), paths)));
        }
    }

    private static Map<String, Integer> places(List<FieldPath> paths) {
        var places = new HashMap<String, Integer>();
        for (int i = 0; i < paths.size(); i++) {
            places.put(paths.get(i).written(), i);
        }
        return places;
    }

    private Inside inside(Projection wanted, Map<String, Integer> places) {
        return new Inside(
                wanted.shape(),
                wanted.values().stream()
                        .map(value ->
                                new Property(
                                        value.name(),
                                        value.path().last(),
                                        places.getOrDefault(value.path().written(), -1),
                                        EdmTypes.isComplex(value.path().last().type())
                                                ? null
                                                : kind(
                                                        EdmTypes.primitive(
                                                                value.path().last().type()))))
                        .toList(),
                wanted.references().stream()
                        .map(one ->
                                new Link(
                                        one.one().name(),
                                        places.getOrDefault(one.one().path().written(), -1),
                                        inside(one.inside(), places)))
                        .toList());
    }

    private @Nullable String kind(EdmPrimitiveTypeKind kind) {
        boolean plain = kind == EdmPrimitiveTypeKind.String || kind == EdmPrimitiveTypeKind.Boolean;
        return format.isFull() && !plain ? "#" + kind.name() : null;
    }

    /** The address of a record: {@code stays('S-1')}. */
    String address(RecordView view) {
        return set + key.predicate(view);
    }

    /** A record as an object of its own. */
    void write(JsonGenerator to, RecordView view) {
        to.writeStartObject();
        members(to, view);
        to.writeEndObject();
    }

    /** What stands in the object of a record. */
    void members(JsonGenerator to, RecordView view) {
        var address = format.isFull() ? address(view) : "";
        annotate(to, wanted.shape(), address);
        if (format.annotates()) {
            to.writeStringProperty("@odata.etag", "\"" + view.version() + "\"");
        }
        if (wanted.id()) {
            typed(to, EntityShape.ID, kind(EdmPrimitiveTypeKind.Guid));
            to.writeStringProperty(EntityShape.ID, view.id().toString());
        }
        if (wanted.version()) {
            typed(to, EntityShape.VERSION, kind(EdmPrimitiveTypeKind.Int64));
            number(to, EntityShape.VERSION, view.version());
        }
        values(to, record, view.values(), address);
        for (var one : items) {
            items(to, one, view.parts().get(one.place()), address);
        }
    }

    private void annotate(JsonGenerator to, EntityShape shape, String address) {
        if (format.isFull()) {
            to.writeStringProperty(
                    "@odata.type", "#" + shape.type().getFullQualifiedNameAsString());
            to.writeStringProperty("@odata.id", address);
            shape.references().forEach(one -> link(to, one.name(), address));
            shape.items().forEach(one -> link(to, one.name(), address));
        }
    }

    private static void link(JsonGenerator to, String name, String address) {
        to.writeStringProperty(name + "@odata.navigationLink", address + "/" + name);
    }

    private static void typed(JsonGenerator to, String name, @Nullable String kind) {
        if (kind != null) {
            to.writeStringProperty(name + "@odata.type", kind);
        }
    }

    private void number(JsonGenerator to, String name, long number) {
        to.writeName(name);
        JsonText.write(to, format.number(number));
    }

    private void values(
            JsonGenerator to, Inside inside, @Nullable Object[] values, String address) {
        for (var one : inside.values()) {
            if (one.field().type() instanceof FileType) {
                stream(to, one, values, address);
                continue;
            }
            typed(to, one.name(), one.kind());
            to.writeName(one.name());
            JsonText.write(to, format.value(plain(one.field(), one.place(), values)));
        }
        for (var one : inside.references()) {
            to.writeName(one.name());
            if (one.place() >= 0 && values[one.place()] == null) {
                to.writeNull();
                continue;
            }
            var at = format.isFull() ? address + "/" + one.name() : "";
            to.writeStartObject();
            annotate(to, one.inside().shape(), at);
            values(to, one.inside(), values, at);
            to.writeEndObject();
        }
    }

    /**
     * A stream property: what it is, but not its bytes (JSON Format 4.01 §9). The library knows its
     * address from its name, as clients do.
     */
    private void stream(JsonGenerator to, Property one, @Nullable Object[] values, String address) {
        var file = one.place() < 0 ? null : values[one.place()];
        if (!(file instanceof KeptFile kept)) {
            to.writeName(one.name());
            to.writeNull();
            return;
        }
        if (format.isFull()) {
            var at = address + "/" + one.name();
            to.writeStringProperty(one.name() + "@odata.mediaReadLink", at);
            to.writeStringProperty(one.name() + "@odata.mediaEditLink", at);
        }
        if (format.annotates()) {
            to.writeStringProperty(one.name() + "@odata.mediaContentType", kept.mediaType());
            to.writeStringProperty(one.name() + "@odata.mediaEtag", FileTransfer.tag(kept));
        }
    }

    private static @Nullable Object plain(Field field, int place, @Nullable Object[] values) {
        return place < 0 ? null : PlainRecords.write(field, values[place]);
    }

    private void items(
            JsonGenerator to, ItemsWriter one, List<RecordView.ItemView> all, String address) {
        var asked = one.wanted();
        var name = asked.items().name();
        if (asked.counted()) {
            number(to, name + "@odata.count", all.size());
        }
        if (!asked.listed()) {
            return;
        }
        int from = Math.min(asked.skip(), all.size());
        int end = asked.top() == null ? all.size() : Math.min(all.size(), from + asked.top());
        to.writeArrayPropertyStart(name);
        for (var item : all.subList(from, end)) {
            var at = format.isFull() ? "%s/%s(%d)".formatted(address, name, item.line()) : "";
            to.writeStartObject();
            annotate(to, asked.items().target(), at);
            typed(to, EntityShape.LINE, kind(EdmPrimitiveTypeKind.Int64));
            number(to, EntityShape.LINE, item.line());
            values(to, one.inside(), item.values(), at);
            to.writeEndObject();
        }
        to.writeEndArray();
    }
}
