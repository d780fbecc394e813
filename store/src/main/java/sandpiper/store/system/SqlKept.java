package sandpiper.store.system;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.KeptStorage;
import sandpiper.engine.port.SchemaStorage.Keeping;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/** What is kept aside, each in a table of its own, and the list of these. */
public final class SqlKept implements KeptStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_kept");
    private static final Statement ALL =
            Sql.statement(
                    TABLE.select(
                                    "number",
                                    "kept_at",
                                    "release",
                                    "object",
                                    "part",
                                    "field",
                                    "object_now",
                                    "part_now",
                                    "field_now",
                                    "rows")
                            .orderBy(Sql.number("number").desc()));
    private static final Statement ADD =
            TABLE.insertNumbered(
                    "number",
                    "kept_at",
                    "release",
                    "object",
                    "part",
                    "field",
                    "object_now",
                    "part_now",
                    "field_now",
                    "rows");
    private static final Statement REMOVE = TABLE.delete(Sql.is("number"));
    private static final Statement RENAME_OBJECT =
            TABLE.update(List.of("object_now"), Sql.is("object_now"));
    private static final Statement RENAME_PART =
            TABLE.update(List.of("part_now"), Sql.is("object_now").and(Sql.is("part_now")));
    private static final Statement RENAME_FIELD =
            TABLE.update(List.of("field_now"), Sql.is("number"));

    /** The table that has the values. */
    public static String table(long number) {
        return "_kept_%d".formatted(number);
    }

    /** Whether a table has values that are kept aside. */
    public static boolean isTable(String name) {
        return name.startsWith("_kept_");
    }

    @Override
    public List<Kept> all(Session session) {
        return all(SqlSession.of(session));
    }

    private static List<Kept> all(SqlSession sql) {
        return sql.list(
                ALL,
                row ->
                        new Kept(
                                row.getLong(1),
                                TemporalType.instant(row.getLong(2)),
                                row.getInt(3),
                                place(row.getString(4), row.getString(5), row.getString(6)),
                                place(row.getString(7), row.getString(8), row.getString(9)),
                                row.getLong(10)));
    }

    private static Place place(String object, @Nullable String part, @Nullable String field) {
        return new Place(object, part, field);
    }

    @Override
    public boolean forget(Transaction transaction, long number) {
        return remove(SqlSession.of(transaction), number);
    }

    /** Drops a table with its entry; tells whether it was there. */
    public static boolean remove(SqlSession sql, long number) {
        boolean was = sql.run(REMOVE, number) > 0;
        if (was) {
            sql.runOnce(Tables.sql().dropTable(Sql.table(table(number))));
        }
        return was;
    }

    /** Adds an entry, whose table is still to be made. */
    public static long add(SqlSession sql, Keeping keeping, Place place, Place now, long rows) {
        return sql.insert(
                ADD,
                TemporalType.micros(keeping.at()),
                keeping.release(),
                place.object(),
                place.part(),
                place.field(),
                now.object(),
                now.part(),
                now.field(),
                rows);
    }

    /** Follows an object to its new name. */
    public static void renameObject(SqlSession sql, String from, String to) {
        sql.run(RENAME_OBJECT, to, from);
    }

    /** Follows a part to its new name. */
    public static void renamePart(SqlSession sql, String object, String from, String to) {
        sql.run(RENAME_PART, to, object, from);
    }

    /**
     * Follows what was kept of a text in its languages, such as {@code title.de}, to its new name.
     *
     * @param from the text as it was called, in its object and part as these are called now
     */
    public static void renameTexts(SqlSession sql, Place from, String to) {
        var start = Place.inLanguage(Objects.requireNonNull(from.field()), "");
        for (var kept : all(sql)) {
            var now = kept.now();
            var field = now.field();
            if (field != null
                    && field.startsWith(start)
                    && now.object().equals(from.object())
                    && Objects.equals(now.part(), from.part())) {
                sql.run(
                        RENAME_FIELD,
                        Place.inLanguage(to, field.substring(start.length())),
                        kept.number());
            }
        }
    }
}
