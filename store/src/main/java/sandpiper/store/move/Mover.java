package sandpiper.store.move;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jooq.impl.DSL;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
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
     * @throws StorageException when somebody works on one of them, there is something in the other,
     *     or what arrived is not the same; then nothing of it is kept
     */
    public Moved move() {
        requireAlone(from);
        requireAlone(to);
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
            var columns = MovedTables.columns(read);
            var tables = MovedTables.all(columns, release);
            var sums = new LinkedHashMap<MovedTable, RowDigest>();
            kept(columns, written);
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
            MovedTables.numberOn(written, tables);
            ReleaseFence.move(written, number);
            target.commit();
            return new Moved(
                    number, tables.size(), sums.values().stream().mapToLong(RowDigest::rows).sum());
        }
    }

    /** What a process of the service writes meanwhile would not go along. */
    private static void requireAlone(Storage storage) {
        try (var session = storage.snapshot()) {
            storage.peers(session).stream()
                    .filter(one -> !one.own())
                    .findFirst()
                    .ifPresent(one -> {
                        throw new StorageException(
                                "The service runs on it (%s); end it first. One that was killed is forgotten after a quarter of a minute."
                                        .formatted(one.name()),
                                new IllegalStateException());
                    });
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

    /** Makes the tables of what is kept aside, which no release has. */
    private static void kept(Map<String, Map<String, String>> all, SqlSession written) {
        var schema = written.dialect().schema();
        all.forEach((name, columns) -> {
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
}
