package sandpiper.server.odata.metadata;

import java.util.List;
import java.util.Optional;
import org.apache.olingo.commons.api.edm.FullQualifiedName;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/**
 * An entity type: what it has, and where in a record that stands.
 *
 * @param object what a record of it is, or whose line item it is
 * @param key the values that identify an entity; empty where it has no address of its own
 * @param own whether it has the {@code id} and {@code version} of a record
 */
public record EntityShape(
        FullQualifiedName type,
        ObjectType object,
        boolean own,
        List<String> key,
        List<Value> values,
        List<ToOne> references,
        List<Items> items) {
    /** The public id, which every record has. */
    public static final String ID = "id";

    /** The version, which every record has. */
    public static final String VERSION = "version";

    /** The number of a line item, by which it is addressed. */
    public static final String LINE = "line";

    /** The key of a record that is referred to. */
    static final String KEY = "key";

    public EntityShape {
        key = List.copyOf(key);
        values = List.copyOf(values);
        references = List.copyOf(references);
        items = List.copyOf(items);
    }

    /**
     * A property that has a value.
     *
     * @param path where it stands, from the record or the line item
     * @param use what callers may do with it
     */
    public record Value(String name, FieldPath path, Use use) {}

    /** A record that is referred to; {@code path} ends with the reference. */
    public record ToOne(String name, FieldPath path, EntityShape target) {}

    /** Line items. */
    public record Items(String name, Part part, EntityShape target, Use use) {}

    /** What callers may do with a property. */
    public record Use(boolean shown, boolean creatable, boolean updatable) {}

    public Optional<Value> value(String name) {
        return values.stream().filter(value -> value.name().equals(name)).findFirst();
    }

    public Optional<ToOne> reference(String name) {
        return references.stream().filter(one -> one.name().equals(name)).findFirst();
    }

    public Optional<Items> items(String name) {
        return items.stream().filter(one -> one.name().equals(name)).findFirst();
    }

    /** Whether records are told apart by their public id. */
    public boolean isKeyedById() {
        return key.equals(List.of(ID));
    }

    /** The names of everything it has. */
    public List<String> names() {
        var names = new java.util.ArrayList<String>();
        if (own) {
            names.add(ID);
            names.add(VERSION);
        }
        values.forEach(value -> names.add(value.name()));
        references.forEach(one -> names.add(one.name()));
        items.forEach(one -> names.add(one.name()));
        return names;
    }
}
