package sandpiper.store.move;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jooq.impl.DSL;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.store.schema.RowNumbers;
import sandpiper.store.schema.SchemaChanger;
import sandpiper.store.sql.Dialect;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.system.ReleaseFence;
import sandpiper.store.system.SqlKept;
import sandpiper.store.table.Tables;

/**
 * Carries everything from one storage to another that is empty, in one transaction, and compares
 * both at the end. Nobody writes to the first meanwhile.
 */
public final class Mover {
    private static final String NUMBER = "number";

    /** What is of one process, or tells processes apart. */
    private static final Set<String> LEFT =
            Set.of(
                    "sandpiper_format",
                    "sandpiper_fence",
                    "sandpiper_stamp",
                    "sandpiper_event_arriving");

    /** Tables that others refer to. */
    private static final List<String> FIRST =
            List.of(
                    "sandpiper_release",
                    "sandpiper_role",
                    "sandpiper_trace",
                    "sandpiper_event",
                    "sandpiper_delivery");

    private final Storage from;
    private final Storage to;
    private final Listener listener;

    /** Hears how far it is. */
    @FunctionalInterface
    public interface Listener {
        /** A table is carried over. */
        void moved(String table, long rows, int place, int of);
    }

    /** What was carried over. */
    public record Moved(int release, int tables, long rows) {}

    public Mover(Storage from, Storage to, Listener listener) {
        this.from = from;
        this.to = to;
        this.listener = listener;
    }

    /**
     * Does it.
     *
     * @throws StorageException when there is something in the other, or what arrived is not the
     *     same; then nothing of it is kept
     */
    public Moved move() {
        settleEvents();
        try (var source = from.begin(true);
                var target = to.begin(true)) {
            var read = SqlSession.of(source);
            var written = SqlSession.of(target);
            int number = from.definitions().newestRelease(source).orElse(0);
            var release =
                    number == 0
                            ? Release.EMPTY
                            : Definitions.reread(from.definitions().filesOf(source, number))
                                    .release()
                                    .orElseThrow();
            requireEmpty(written);
            var tables = tables(read, release);
            var sums = new LinkedHashMap<MovedTable, RowDigest>();
            kept(read, written);
            ((SchemaChanger) to.schema())
                    .build(
                            target,
                            release,
                            () ->
                                    tables.forEach(table -> {
                                        var digest = table.copy(read, written);
                                        sums.put(table, digest);
                                        listener.moved(
                                                table.name(),
                                                digest.rows(),
                                                sums.size(),
                                                tables.size());
                                    }));
            compare(written, sums);
            numberOn(written, tables);
            ReleaseFence.move(written, number);
            target.commit();
            return new Moved(
                    number, tables.size(), sums.values().stream().mapToLong(RowDigest::rows).sum());
        }
    }

    /** Events that have no place in the order yet get theirs first. */
    private void settleEvents() {
        if (from.writers() == 1) {
            return;
        }
        while (true) {
            try (var transaction = from.begin(false)) {
                if (!from.events().areArriving(transaction)) {
                    return;
                }
                from.events().arrive(transaction);
                transaction.commit();
            }
        }
    }

    private void requireEmpty(SqlSession session) {
        for (var table : List.of("sandpiper_release", "sandpiper_user", "sandpiper_draft")) {
            long rows = session.number(Tables.sql().selectCount().from(DSL.table(DSL.name(table))));
            if (rows > 0) {
                throw new StorageException(
                        "There is data where it is to be moved to; name an empty file or schema.",
                        new IllegalStateException(table));
            }
        }
    }

    private static Map<String, Map<String, String>> columns(SqlSession session) {
        Map<String, Map<String, String>> columns = new LinkedHashMap<>();
        session.list(
                        session.dialect().schema().columns(),
                        row -> List.of(row.getString(1), row.getString(2), row.getString(3)))
                .forEach(one ->
                        columns.computeIfAbsent(one.get(0), _ -> new LinkedHashMap<>())
                                .put(one.get(1), one.get(2)));
        return columns;
    }

    private static List<MovedTable> tables(SqlSession read, Release release) {
        var tables = new ArrayList<MovedTable>();
        var all = columns(read);
        var own = new ArrayList<>(FIRST);
        all.keySet().stream()
                .filter(name -> name.startsWith("sandpiper_"))
                .filter(name -> !LEFT.contains(name) && !FIRST.contains(name))
                .forEach(own::add);
        own.forEach(name -> {
            var columns = List.copyOf(all.getOrDefault(name, Map.of()).keySet());
            // Where rows have a number it is theirs alone, or stands behind what it counts in.
            tables.add(new MovedTable(name, columns, ordered(columns)));
        });
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
        all.forEach((name, columns) -> {
            if (SqlKept.isTable(name)) {
                var names = List.copyOf(columns.keySet());
                tables.add(new MovedTable(name, names, names));
            }
        });
        return tables;
    }

    /** All columns but those that may be large: rows are told apart by the others. */
    private static List<String> ordered(List<String> columns) {
        return columns.stream().filter(name -> !name.equals("content")).toList();
    }

    /** Makes the tables of what is kept aside, which no release has. */
    private static void kept(SqlSession read, SqlSession written) {
        var schema = written.dialect().schema();
        columns(read)
                .forEach((name, columns) -> {
                    if (SqlKept.isTable(name)) {
                        var made =
                                columns.entrySet().stream()
                                        .map(column ->
                                                written.dialect().render(DSL.name(column.getKey()))
                                                        + " "
                                                        + type(schema, column.getValue()))
                                        .toList();
                        written.runOnce(
                                "create table %s (%s)"
                                        .formatted(
                                                written.dialect().render(DSL.name(name)),
                                                String.join(", ", made)));
                    }
                });
    }

    private static String type(Dialect.Schema schema, String declared) {
        var known = declared.toLowerCase(Locale.ROOT);
        if (known.contains("int") || known.contains("num")) {
            return schema.integer();
        }
        return known.contains("text") || known.contains("char") ? schema.text() : schema.bytes();
    }

    private static void compare(SqlSession written, Map<MovedTable, RowDigest> sums) {
        sums.forEach((table, expected) -> {
            var found = table.digest(written);
            if (found.rows() != expected.rows() || !found.sum().equals(expected.sum())) {
                throw new StorageException(
                        "What arrived in %s is not what was there; nothing was moved."
                                .formatted(table.name()),
                        new IllegalStateException(
                                "%d and %d rows".formatted(expected.rows(), found.rows())));
            }
        });
    }

    private static void numberOn(SqlSession written, List<MovedTable> tables) {
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
