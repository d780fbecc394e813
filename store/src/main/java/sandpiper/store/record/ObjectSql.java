package sandpiper.store.record;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.store.table.Tables;

/** The statements for the records of one object, written once for a release. */
final class ObjectSql {
    final String table;
    final String byId;
    final String load;
    final String insert;
    final String delete;
    final String keyOf;
    final String after;
    final String highest;
    final List<PartSql> parts;
    private final Map<List<String>, String> updates = new ConcurrentHashMap<>();
    private final Map<List<String>, String> byFields = new ConcurrentHashMap<>();

    ObjectSql(ObjectType object) {
        table = Tables.quoted(Tables.of(object));
        var columns = Tables.recordColumns(object.fields());
        var number = Tables.quoted(Tables.NUMBER);
        byId =
                "select %s, %s from %s where %s = ?"
                        .formatted(
                                number,
                                Tables.quoted(Tables.RETIRED),
                                table,
                                Tables.quoted(Tables.ID));
        load = "select %s from %s where %s = ?".formatted(Tables.quoted(columns), table, number);
        var inserted = columns.subList(1, columns.size());
        insert =
                "insert into %s (%s) values (%s)"
                        .formatted(table, Tables.quoted(inserted), marks(inserted.size()));
        delete = "delete from %s where %s = ?".formatted(table, number);
        var key = object.keyFields();
        keyOf =
                "select %s from %s where %s = ?"
                        .formatted(
                                Tables.quoted(key.isEmpty() ? List.of(Tables.ID) : firsts(key)),
                                table,
                                number);
        after =
                "select %1$s from %2$s where %1$s > ? order by %1$s limit ?"
                        .formatted(number, table);
        highest = "select max(%s) from %s".formatted(number, table);
        parts = object.parts().stream().map(part -> new PartSql(object, part)).toList();
    }

    /** The statements for one part. */
    static final class PartSql {
        final String load;
        final String insert;
        final String delete;
        final String lastLine;
        private final String table;
        private final Map<List<String>, String> updates = new ConcurrentHashMap<>();

        PartSql(ObjectType object, Part part) {
            table = Tables.quoted(Tables.of(object, part));
            var columns = new ArrayList<>(Tables.ITEM_COLUMNS);
            columns.addAll(Tables.columns(part.fields()));
            var owner = Tables.quoted(Tables.OWNER);
            var line = Tables.quoted(Tables.LINE);
            load =
                    "select %s from %s where %s = ? order by %s"
                            .formatted(
                                    Tables.quoted(columns),
                                    table,
                                    owner,
                                    Tables.quoted(Tables.POSITION));
            insert =
                    "insert into %s (%s) values (%s)"
                            .formatted(table, Tables.quoted(columns), marks(columns.size()));
            delete = "delete from %s where %s = ? and %s = ?".formatted(table, owner, line);
            lastLine = "select max(%s) from %s where %s = ?".formatted(line, table, owner);
        }

        String update(List<Field> fields) {
            return updates.computeIfAbsent(
                    Tables.columns(fields),
                    columns -> {
                        var assigned = new ArrayList<>(List.of(Tables.POSITION));
                        assigned.addAll(columns);
                        return "update %s set %s where %s = ? and %s = ?"
                                .formatted(
                                        table,
                                        assignments(assigned),
                                        Tables.quoted(Tables.OWNER),
                                        Tables.quoted(Tables.LINE));
                    });
        }
    }

    String update(List<Field> fields) {
        return updates.computeIfAbsent(
                Tables.columns(fields),
                columns -> {
                    var assigned =
                            new ArrayList<>(
                                    List.of(
                                            Tables.VERSION,
                                            Tables.RETIRED,
                                            Tables.CHANGED_AT,
                                            Tables.CHANGED_BY));
                    assigned.addAll(columns);
                    return "update %s set %s where %s = ?"
                            .formatted(table, assignments(assigned), Tables.quoted(Tables.NUMBER));
                });
    }

    /** Finds by the values of some fields, leaving one record out. */
    String byFields(List<Field> fields) {
        return byFields.computeIfAbsent(
                fields.stream().map(Field::name).toList(),
                names -> {
                    var conditions =
                            String.join(
                                    " and ",
                                    names.stream()
                                            .map(name -> Tables.quoted(name) + " = ?")
                                            .toList());
                    return "select %s, %s from %s where %s and %s <> ? limit 1"
                            .formatted(
                                    Tables.quoted(Tables.NUMBER),
                                    Tables.quoted(Tables.RETIRED),
                                    table,
                                    conditions,
                                    Tables.quoted(Tables.NUMBER));
                });
    }

    /** Of a field with several columns the first. */
    private static List<String> firsts(List<Field> fields) {
        return fields.stream().map(field -> Tables.columns(field).getFirst()).toList();
    }

    private static String marks(int count) {
        return String.join(", ", Collections.nCopies(count, "?"));
    }

    private static String assignments(List<String> columns) {
        return String.join(
                ", ", columns.stream().map(column -> Tables.quoted(column) + " = ?").toList());
    }
}
