package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.release.ObjectType;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.ColumnValues;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;

/**
 * History in one table, a row for each change of a record. The values of a row are one text: a line
 * for each value, with tabs between path, before and after; one that was or is empty is written
 * {@code -}, any other begins with {@code =}.
 */
public final class SqlHistory implements HistoryStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_history");
    private static final String[] COLUMNS = {
        "object", "record", "version", "at", "actor", "via", "operation", "changes"
    };
    private static final Statement ADD = TABLE.insert(COLUMNS);
    private static final Statement OF_RECORD =
            Sql.statement(
                    TABLE.select(COLUMNS)
                            .where(Sql.is("record"), Sql.is("object"))
                            .orderBy(Sql.number("number").desc())
                            .limit(Sql.count()));
    private static final Statement LATEST =
            Sql.statement(
                    TABLE.select(COLUMNS).orderBy(Sql.number("number").desc()).limit(Sql.count()));
    private static final Statement RENAME = TABLE.update(List.of("object"), Sql.is("object"));

    private static final String EMPTY = "-";

    @Override
    public void add(Transaction transaction, Entry entry) {
        SqlSession.of(transaction)
                .run(
                        ADD,
                        entry.object(),
                        ColumnValues.bytes(entry.record()),
                        entry.version(),
                        TemporalType.micros(entry.at()),
                        entry.by(),
                        entry.via(),
                        entry.operation(),
                        write(entry.changes()));
    }

    @Override
    public List<Entry> of(Session session, ObjectType object, UUID record, int limit) {
        return SqlSession.of(session)
                .list(
                        OF_RECORD,
                        SqlHistory::read,
                        ColumnValues.bytes(record),
                        object.name(),
                        limit);
    }

    @Override
    public List<Entry> latest(Session session, int limit) {
        return SqlSession.of(session).list(LATEST, SqlHistory::read, limit);
    }

    @Override
    public void renameObject(Transaction transaction, String from, String to) {
        SqlSession.of(transaction).run(RENAME, to, from);
    }

    private static Entry read(ResultSet row) throws SQLException {
        return new Entry(
                row.getString(1),
                ColumnValues.uuid(row.getBytes(2)),
                row.getLong(3),
                TemporalType.instant(row.getLong(4)),
                row.getString(5),
                row.getString(6),
                row.getString(7),
                parse(row.getString(8)));
    }

    private static String write(List<ValueChange> changes) {
        var text = new StringBuilder();
        for (var change : changes) {
            if (!text.isEmpty()) {
                text.append('\n');
            }
            text.append(change.path()).append('\t');
            append(text, change.before());
            text.append('\t');
            append(text, change.after());
        }
        return text.toString();
    }

    private static void append(StringBuilder text, @Nullable String value) {
        if (value == null) {
            text.append(EMPTY);
            return;
        }
        text.append('=');
        for (int i = 0; i < value.length(); i++) {
            char c = value.charAt(i);
            switch (c) {
                case '\\' -> text.append("\\\\");
                case '\n' -> text.append("\\n");
                case '\r' -> text.append("\\r");
                case '\t' -> text.append("\\t");
                default -> text.append(c);
            }
        }
    }

    private static List<ValueChange> parse(String text) {
        return text.isEmpty()
                ? List.of()
                : text.lines()
                        .map(line -> line.split("\t", -1))
                        .map(parts -> new ValueChange(parts[0], value(parts[1]), value(parts[2])))
                        .toList();
    }

    private static @Nullable String value(String written) {
        return written.equals(EMPTY) ? null : TextList.unescape(written.substring(1));
    }
}
