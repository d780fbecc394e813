package sandpiper.store.system;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.Record1;
import org.jooq.Select;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.FileStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.FileBytes;
import sandpiper.model.type.KeptFile;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/** The bytes of files, by their digests. */
public final class SqlFiles implements FileStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_file");
    private static final Statement BYTES = TABLE.selectBy("sha256", "content");
    private static final Statement IS_KEPT = TABLE.selectBy("sha256", "sha256");
    private static final Statement KEEP =
            Sql.statement(
                    Tables.sql()
                            .insertInto(TABLE.table(), Sql.column("sha256"), Sql.column("content"))
                            .values(Sql.value(), Sql.value())
                            .onConflictDoNothing());

    /** The beginning of the names of the service's own tables. */
    private static final String OWN = "sandpiper_";

    /** What the columns of a file are called behind its name, which itself is the digest. */
    private static final List<String> SUFFIXES = List.of("_name", "_type", "_size");

    @Override
    public Optional<FileBytes> bytes(Session session, String sha256) {
        return SqlSession.of(session).first(BYTES, row -> new FileBytes(row.getBytes(1)), sha256);
    }

    /**
     * Keeps the bytes of a file that comes with some.
     *
     * @throws StorageException when it comes without, and they are not kept
     */
    public static void keep(SqlSession sql, @Nullable Object value) {
        if (!(value instanceof KeptFile file)) {
            return;
        }
        var bytes = file.bytes();
        if (bytes != null) {
            sql.run(KEEP, file.sha256(), bytes.array());
        } else if (sql.first(IS_KEPT, row -> true, file.sha256()).isEmpty()) {
            throw new StorageException(
                    "The bytes of the file %s are not kept.".formatted(file.name()),
                    new IllegalStateException());
        }
    }

    @Override
    public boolean hasUnused(Session session) {
        var sql = SqlSession.of(session);
        return !sql.list(
                        TABLE.select("sha256").where(isUnused(sql)).limit(DSL.inline(1)),
                        row -> true)
                .isEmpty();
    }

    @Override
    public int removeUnused(Transaction transaction) {
        var sql = SqlSession.of(transaction);
        return sql.run(TABLE.delete(isUnused(sql)));
    }

    @Override
    public Total total(Session session) {
        return SqlSession.of(session)
                .list(
                        Tables.sql()
                                .select(
                                        DSL.count(),
                                        DSL.coalesce(
                                                DSL.sum(
                                                        DSL.field(
                                                                "length({0})",
                                                                Long.class, Sql.column("content"))),
                                                DSL.inline(0)))
                                .from(TABLE.table()),
                        row -> new Total(row.getLong(1), row.getLong(2)))
                .getFirst();
    }

    private static Condition isUnused(SqlSession sql) {
        Select<Record1<Object>> used = null;
        for (var entry : fileColumns(sql).entrySet()) {
            for (var column : entry.getValue()) {
                var of =
                        Tables.sql()
                                .select(Sql.column(column))
                                .from(Sql.table(entry.getKey()))
                                .where(Sql.column(column).isNotNull());
                used = used == null ? of : used.unionAll(of);
            }
        }
        return used == null ? DSL.noCondition() : Sql.column("sha256").notIn(used);
    }

    /**
     * The columns that have digests, by their tables: those of records, of line items, and of what
     * is kept aside. A name somebody chose has no underscore, so the columns behind it tell a file.
     */
    private static Map<String, Set<String>> fileColumns(SqlSession sql) {
        Map<String, List<String>> all = new LinkedHashMap<>();
        sql
                .list(
                        sql.dialect().schema().columns(),
                        row -> Map.entry(row.getString(1), row.getString(2)))
                .stream()
                .filter(one -> !one.getKey().startsWith(OWN))
                .forEach(one ->
                        all.computeIfAbsent(one.getKey(), _ -> new ArrayList<>())
                                .add(one.getValue()));
        Map<String, Set<String>> files = new LinkedHashMap<>();
        all.forEach((table, columns) -> {
            var found = new LinkedHashSet<>(columns);
            found.removeIf(column ->
                    !SUFFIXES.stream()
                            .allMatch(suffix ->
                                    columns.contains(sql.dialect().name(column + suffix))));
            if (!found.isEmpty()) {
                files.put(table, found);
            }
        });
        return files;
    }
}
