package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jooq.OrderField;
import org.jooq.Query;
import org.jooq.SQLDialect;
import org.jooq.impl.CustomField;
import org.jooq.impl.DSL;
import org.jooq.impl.SQLDataType;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.type.BooleanType;
import sandpiper.model.type.ChoiceType;
import sandpiper.store.table.Sql;
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
        var resources = resourcesOf(release, object);
        var ways = ways(resources);
        for (var resource : resources) {
            Stream.concat(resource.filterable().stream(), resource.sortable().stream())
                    .forEach(path -> addForQuery(indexes, object, path, ways));
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

    private static void addForQuery(
            Map<String, Index> indexes, ObjectType object, FieldPath path, List<String> ways) {
        var field = path.last();
        boolean covered =
                field.unique() || field.isReference() || object.key().equals(List.of(field.name()));
        if (path.isOwn() && !covered) {
            var columns = new ArrayList<>(List.of(field.name()));
            if (hasFewValues(field)) {
                columns.addAll(List.of(Tables.NUMBER, Tables.RETIRED));
                columns.addAll(ways);
            }
            add(indexes, "query", Tables.of(object), columns, false);
        }
    }

    /**
     * Whether many records have the same value, as with a state. They are then gone through in
     * order, and what tells them apart further stands in the index, so that none has to be looked
     * up in vain.
     */
    private static boolean hasFewValues(Field field) {
        return field.type() instanceof ChoiceType || field.type() instanceof BooleanType;
    }

    /** The references by which services filter for something of another record. */
    private static List<String> ways(List<ResourceType> resources) {
        return resources.stream()
                .flatMap(resource -> resource.filterable().stream())
                .filter(path -> !path.isOwn())
                .map(path -> path.steps().getFirst().name())
                .distinct()
                .toList();
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

    private static OrderField<?> rising(org.jooq.Field<Object> column) {
        return CustomField.of(
                "rising",
                SQLDataType.OTHER,
                context ->
                        context.visit(
                                context.family() == SQLDialect.POSTGRES
                                        ? Sql.rising(column)
                                        : column));
    }

    /** The statement that makes it. */
    Query sql() {
        // As pages are sorted, so that these are read in order.
        var columnFields = columns.stream().map(Sql::column).map(Index::rising).toList();
        var made =
                unique
                        ? Tables.sql().createUniqueIndex(DSL.name(name))
                        : Tables.sql().createIndex(DSL.name(name));
        return made.on(Sql.table(table), columnFields);
    }
}
