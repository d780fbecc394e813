package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.store.table.Tables;

/**
 * An index that a release needs. Its name tells all about it, so that two of one name are the same.
 *
 * @param table unquoted
 */
record Index(String name, String table, List<String> columns, boolean unique) {
    /**
     * The indexes of an object's table and its parts': for keys, unique fields, references, and
     * what services filter and sort by.
     */
    static List<Index> of(Release release, ObjectType object) {
        var indexes = new LinkedHashMap<String, Index>();
        if (!object.key().isEmpty()) {
            add(indexes, "key", Tables.of(object), columns(object.keyFields()), true);
        }
        for (var field : object.fields()) {
            if (field.unique()) {
                add(indexes, "unique", Tables.of(object), List.of(field.name()), true);
            } else if (field.isReference()) {
                add(indexes, "reference", Tables.of(object), List.of(field.name()), false);
            }
        }
        for (var resource : resourcesOf(release, object)) {
            for (var path : resource.filterable()) {
                addForQuery(indexes, object, path);
            }
            for (var path : resource.sortable()) {
                addForQuery(indexes, object, path);
            }
        }
        for (var part : object.parts()) {
            addOfPart(indexes, object, part);
        }
        return List.copyOf(indexes.values());
    }

    private static List<ResourceType> resourcesOf(Release release, ObjectType object) {
        return release.services().stream()
                .flatMap(service -> service.resources().stream())
                .filter(resource -> resource.object().name().equals(object.name()))
                .toList();
    }

    private static void addForQuery(Map<String, Index> indexes, ObjectType object, FieldPath path) {
        var field = path.last();
        boolean covered =
                field.unique() || field.isReference() || object.key().equals(List.of(field.name()));
        if (path.isOwn() && !covered) {
            add(indexes, "query", Tables.of(object), List.of(field.name()), false);
        }
    }

    private static void addOfPart(Map<String, Index> indexes, ObjectType object, Part part) {
        for (var field : part.fields()) {
            if (field.isReference()) {
                add(indexes, "reference", Tables.of(object, part), List.of(field.name()), false);
            }
        }
    }

    private static List<String> columns(List<Field> fields) {
        var columns = new ArrayList<String>();
        fields.forEach(field -> columns.add(field.name()));
        return columns;
    }

    private static void add(
            Map<String, Index> indexes,
            String purpose,
            String table,
            List<String> columns,
            boolean unique) {
        var name = purpose + "_" + table + "_" + String.join("_", columns);
        indexes.put(name, new Index(name, table, columns, unique));
    }

    String sql() {
        return "create %sindex %s on %s (%s)"
                .formatted(
                        unique ? "unique " : "",
                        Tables.quoted(name),
                        Tables.quoted(table),
                        Tables.quoted(columns));
    }
}
