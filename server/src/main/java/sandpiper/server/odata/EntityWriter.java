package sandpiper.server.odata;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeKind;
import org.apache.olingo.commons.core.Encoder;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.server.odata.metadata.EdmTypes;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.metadata.EntityShape.Value;

/**
 * Writes records as entities in the JSON format of OData 4.01, with as much metadata as was asked
 * for.
 *
 * @param root the address of the service, without a slash at its end
 */
public record EntityWriter(String root, Format format) {

    /** The values of a record or line item, found by their paths. */
    private record Row(Map<String, Integer> places, @Nullable Object[] values) {
        static Row of(List<FieldPath> paths, @Nullable Object[] values) {
            var places = new HashMap<String, Integer>();
            for (int i = 0; i < paths.size(); i++) {
                places.put(paths.get(i).written(), i);
            }
            return new Row(places, values);
        }

        boolean has(FieldPath path) {
            return places.containsKey(path.written());
        }

        @Nullable Object plain(FieldPath path) {
            var place = places.get(path.written());
            return place == null ? null : PlainRecords.write(path.last(), values[place]);
        }
    }

    /** The address of a record: {@code stays('S-1')}. */
    String address(String set, EntityShape shape, FieldTree tree, RecordView view) {
        return set + keyPredicate(shape, Row.of(tree.paths(), view.values()), view);
    }

    private static String keyPredicate(EntityShape shape, Row row, RecordView view) {
        if (shape.isKeyedById()) {
            return "(" + view.id() + ")";
        }
        var parts = new ArrayList<String>();
        for (var name : shape.key()) {
            var path = shape.value(name).orElseThrow().path();
            var text = literal(path, row.plain(path));
            parts.add(shape.key().size() == 1 ? text : name + "=" + text);
        }
        return "(" + String.join(",", parts) + ")";
    }

    private static String literal(FieldPath path, @Nullable Object plain) {
        var kind = EdmTypes.primitive(path.last().type());
        var text = String.valueOf(plain);
        return switch (kind) {
            case String -> Encoder.encode("'" + text.replace("'", "''") + "'");
            case Duration -> Encoder.encode("duration'" + text + "'");
            default -> Encoder.encode(text);
        };
    }

    /** A record of a set. */
    Map<String, @Nullable Object> record(
            String set, Projection wanted, FieldTree tree, RecordView view) {
        var row = Row.of(tree.paths(), view.values());
        var shape = wanted.shape();
        var entity = new LinkedHashMap<String, @Nullable Object>();
        var address = set + keyPredicate(shape, row, view);
        annotate(entity, shape, address);
        if (format.annotates()) {
            entity.put("@odata.etag", "\"" + view.version() + "\"");
        }
        if (wanted.id()) {
            typed(entity, EntityShape.ID, EdmPrimitiveTypeKind.Guid);
            entity.put(EntityShape.ID, view.id().toString());
        }
        if (wanted.version()) {
            typed(entity, EntityShape.VERSION, EdmPrimitiveTypeKind.Int64);
            entity.put(EntityShape.VERSION, format.number(view.version()));
        }
        values(entity, wanted, row, address);
        for (var one : wanted.items()) {
            items(entity, one, tree, view, address);
        }
        return entity;
    }

    private void annotate(Map<String, @Nullable Object> entity, EntityShape shape, String address) {
        if (format.isFull()) {
            entity.put("@odata.type", "#" + shape.type().getFullQualifiedNameAsString());
            entity.put("@odata.id", address);
            shape.references().forEach(one -> link(entity, one.name(), address));
            shape.items().forEach(one -> link(entity, one.name(), address));
        }
    }

    private static void link(Map<String, @Nullable Object> entity, String name, String address) {
        entity.put(name + "@odata.navigationLink", address + "/" + name);
    }

    private void values(
            Map<String, @Nullable Object> entity, Projection wanted, Row row, String address) {
        for (var value : wanted.values()) {
            put(entity, value, row.plain(value.path()));
        }
        for (var one : wanted.references()) {
            var path = one.one().path();
            if (row.has(path) && row.plain(path) == null) {
                entity.put(one.one().name(), null);
                continue;
            }
            var inside = new LinkedHashMap<String, @Nullable Object>();
            var at = address + "/" + one.one().name();
            annotate(inside, one.one().target(), at);
            values(inside, one.inside(), row, at);
            entity.put(one.one().name(), inside);
        }
    }

    private void put(Map<String, @Nullable Object> entity, Value value, @Nullable Object plain) {
        var type = value.path().last().type();
        if (!EdmTypes.isComplex(type)) {
            typed(entity, value.name(), EdmTypes.primitive(type));
        }
        entity.put(value.name(), format.value(plain));
    }

    /** Says the type of what JSON alone does not tell. */
    private void typed(
            Map<String, @Nullable Object> entity, String name, EdmPrimitiveTypeKind kind) {
        boolean plain = kind == EdmPrimitiveTypeKind.String || kind == EdmPrimitiveTypeKind.Boolean;
        if (format.isFull() && !plain) {
            entity.put(name + "@odata.type", "#" + kind.name());
        }
    }

    private void items(
            Map<String, @Nullable Object> entity,
            Projection.ExpandedItems wanted,
            FieldTree tree,
            RecordView view,
            String address) {
        var name = wanted.items().name();
        int index = 0;
        while (!tree.parts().get(index).part().name().equals(name)) {
            index++;
        }
        var part = tree.parts().get(index);
        var all = view.parts().get(index);
        int from = Math.min(wanted.skip(), all.size());
        int to = wanted.top() == null ? all.size() : Math.min(all.size(), from + wanted.top());
        var list = new ArrayList<Map<String, @Nullable Object>>();
        for (var item : all.subList(from, to)) {
            var one = new LinkedHashMap<String, @Nullable Object>();
            var at = "%s/%s(%d)".formatted(address, name, item.line());
            annotate(one, wanted.items().target(), at);
            typed(one, EntityShape.LINE, EdmPrimitiveTypeKind.Int64);
            one.put(EntityShape.LINE, format.number(item.line()));
            values(one, wanted.inside(), Row.of(part.paths(), item.values()), at);
            list.add(one);
        }
        if (wanted.counted()) {
            entity.put(name + "@odata.count", format.number(all.size()));
        }
        entity.put(name, list);
    }

    /** What a context URL begins with. */
    String context(String what) {
        return root + "/$metadata#" + what;
    }

    /** Puts the context in front of what is answered, unless no metadata was asked for. */
    Map<String, @Nullable Object> with(String context, Map<String, @Nullable Object> body) {
        var whole = new LinkedHashMap<String, @Nullable Object>();
        if (format.annotates()) {
            whole.put("@odata.context", context(context));
        }
        whole.putAll(body);
        return whole;
    }
}
