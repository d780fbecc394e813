package sandpiper.store.record;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.read.KeyText;
import sandpiper.engine.read.RecordView;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.store.table.Tables;
import sandpiper.store.table.Values;

/** The columns to select for paths, and how to read them again. */
final class PathColumns {
    private final List<org.jooq.Field<?>> columns = new ArrayList<>();
    private final List<Reader> readers = new ArrayList<>();
    private final Release release;
    private final Joins joins;
    private final int firstColumn;

    /** Reads one value from a row. */
    @FunctionalInterface
    private interface Reader {
        @Nullable Object read(ResultSet row) throws SQLException;
    }

    /** {@code firstColumn} is the place, from 1, at which these columns begin in the select. */
    PathColumns(Release release, Joins joins, int firstColumn, List<FieldPath> paths) {
        this.release = release;
        this.joins = joins;
        this.firstColumn = firstColumn;
        paths.forEach(this::add);
    }

    private void add(FieldPath path) {
        var via = path.steps().subList(0, path.steps().size() - 1);
        var field = path.last();
        if (field.type() instanceof FieldType.Reference reference) {
            addLink(path.steps(), release.target(reference));
            return;
        }
        int at = select(via, Tables.columns(field));
        readers.add(row -> Values.read(field, row, at));
    }

    private int select(List<Field> via, List<String> names) {
        int at = firstColumn + columns.size();
        names.forEach(name -> columns.add(joins.column(new ColumnRef(via, name))));
        return at;
    }

    private void addLink(List<Field> via, ObjectType target) {
        var key = target.keyFields();
        int linked = select(via, List.of(Tables.NUMBER));
        int at = key.isEmpty() ? select(via, List.of(Tables.ID)) : select(via, Tables.columns(key));
        var title = target.titleField().orElse(null);
        int titleAt = title == null ? 0 : select(via, List.of(title.name()));
        readers.add(row -> {
            row.getLong(linked);
            if (row.wasNull()) {
                return null;
            }
            var text =
                    key.isEmpty()
                            ? Values.uuid(row.getBytes(at)).toString()
                            : KeyText.write(target, keyValues(key, row, at));
            return new RecordView.Link(text, titleAt == 0 ? null : row.getString(titleAt));
        });
    }

    private static List<@Nullable Object> keyValues(List<Field> key, ResultSet row, int at)
            throws SQLException {
        var values = new ArrayList<@Nullable Object>();
        for (int i = 0; i < key.size(); i++) {
            values.add(Values.read(key.get(i), row, at + i));
        }
        return values;
    }

    List<org.jooq.Field<?>> columns() {
        return columns;
    }

    /** One value for each path. */
    @Nullable Object[] read(ResultSet row) throws SQLException {
        var values = new @Nullable Object[readers.size()];
        for (int i = 0; i < values.length; i++) {
            values[i] = readers.get(i).read(row);
        }
        return values;
    }
}
