package sandpiper.store.move;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sandpiper.model.release.Release;
import sandpiper.store.schema.RowNumbers;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.system.SqlKept;
import sandpiper.store.table.Tables;

/** The tables of a storage whose rows go along to another. */
final class MovedTables {
    private static final String NUMBER = "number";

    /** What is of one process, or tells processes apart. */
    private static final Set<String> LEFT =
            Set.of(
                    "sandpiper_format",
                    "sandpiper_fence",
                    "sandpiper_stamp",
                    "sandpiper_process",
                    "sandpiper_event_arriving");

    /** Tables that others refer to. */
    private static final List<String> FIRST =
            List.of(
                    "sandpiper_release",
                    "sandpiper_role",
                    "sandpiper_trace",
                    "sandpiper_event",
                    "sandpiper_delivery");

    private MovedTables() {}

    /** All tables there are, and their columns with the types of these. */
    static Map<String, Map<String, String>> columns(SqlSession session) {
        Map<String, Map<String, String>> columns = new LinkedHashMap<>();
        session.list(
                        session.dialect().schema().columns(),
                        row -> List.of(row.getString(1), row.getString(2), row.getString(3)))
                .forEach(one ->
                        columns.computeIfAbsent(one.get(0), _ -> new LinkedHashMap<>())
                                .put(one.get(1), one.get(2)));
        return columns;
    }

    /** All of them, in an order in which what is referred to is there before. */
    static List<MovedTable> all(Map<String, Map<String, String>> all, Release release) {
        var tables = new ArrayList<>(own(all));
        tables.addAll(of(release));
        tables.addAll(kept(all));
        return tables;
    }

    /** The service's own. */
    static List<MovedTable> own(Map<String, Map<String, String>> all) {
        var names = new ArrayList<>(FIRST);
        all.keySet().stream()
                .filter(name -> name.startsWith("sandpiper_"))
                .filter(name -> !LEFT.contains(name) && !FIRST.contains(name))
                .forEach(names::add);
        return names.stream()
                .map(name -> {
                    var columns = List.copyOf(all.getOrDefault(name, Map.of()).keySet());
                    // Where rows have a number it is theirs alone, or stands behind what it counts
                    // in.
                    return new MovedTable(name, columns, ordered(columns));
                })
                .toList();
    }

    /** Those of records. */
    static List<MovedTable> of(Release release) {
        var tables = new ArrayList<MovedTable>();
        for (var object : release.objects()) {
            tables.add(
                    new MovedTable(
                            Tables.of(object),
                            Tables.recordColumns(object.fields()),
                            List.of(Tables.NUMBER)));
            for (var part : object.parts()) {
                var columns = new ArrayList<>(Tables.ITEM_COLUMNS);
                columns.addAll(Tables.columns(part.fields()));
                tables.add(
                        new MovedTable(
                                Tables.of(object, part),
                                columns,
                                List.of(Tables.OWNER, Tables.LINE)));
            }
        }
        return tables;
    }

    /** Those of what is kept aside, which no release has. */
    static List<MovedTable> kept(Map<String, Map<String, String>> all) {
        return all.entrySet().stream()
                .filter(one -> SqlKept.isTable(one.getKey()))
                .map(one -> {
                    var names = List.copyOf(one.getValue().keySet());
                    return new MovedTable(one.getKey(), names, names);
                })
                .toList();
    }

    /** All columns but those that may be large: rows are told apart by the others. */
    private static List<String> ordered(List<String> columns) {
        return columns.stream().filter(name -> !name.equals("content")).toList();
    }

    /** Rows that are added later get numbers behind those that were carried over. */
    static void numberOn(SqlSession written, List<MovedTable> tables) {
        for (var table : tables) {
            if (table.columns().contains(Tables.NUMBER) && !SqlKept.isTable(table.name())) {
                RowNumbers.goOn(written, table.name(), Tables.NUMBER);
            } else if (table.columns().getFirst().equals(NUMBER)
                    && !table.name().equals("sandpiper_release")) {
                RowNumbers.goOn(written, table.name(), NUMBER);
            }
        }
    }
}
