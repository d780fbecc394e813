package sandpiper.store.record;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.store.table.ColumnValues;
import sandpiper.store.table.Tables;

/** The columns to select for paths, and how to read them again. */
final class PathColumns {
    private final List<org.jooq.Field<?>> columns = new ArrayList<>();
    private final List<Reader> readers = new ArrayList<>();
    private final Release release;
    private final Joins joins;
    private final int firstColumn;
    private final boolean annotated;

    /** Reads one value from a row. */
    @FunctionalInterface
    private interface Reader {
        @Nullable Object read(ResultSet row) throws SQLException;
    }

    /**
     * @param firstColumn the place, from 1, at which these columns begin in the select
     * @param annotated whether links come with what people recognise them by
     */
    PathColumns(
            Release release,
            Joins joins,
            int firstColumn,
            List<FieldPath> paths,
            boolean annotated) {
        this.release = release;
        this.joins = joins;
        this.firstColumn = firstColumn;
        this.annotated = annotated;
        paths.forEach(this::add);
    }

    private void add(FieldPath path) {
        var via = path.way();
        var field = path.last();
        if (field.type() instanceof FieldType.Reference reference) {
            addLink(path.steps(), release.target(reference));
            return;
        }
        int at = select(via, Tables.columns(field));
        readers.add(row -> ColumnValues.read(field, row, at));
    }

    private int select(List<Field> via, List<String> names) {
        int at = firstColumn + columns.size();
        names.forEach(name -> columns.add(joins.column(new ColumnRef(via, name))));
        return at;
    }

    /** No record is without its key or its public id, so where that is empty there is no record. */
    private void addLink(List<Field> via, ObjectType target) {
        var key = target.keyFields();
        int at = select(via, key.isEmpty() ? List.of(Tables.ID) : Tables.columns(key));
        var title = annotated ? target.titleField().orElse(null) : null;
        int titleAt = title == null ? 0 : select(via, List.of(title.name()));
        readers.add(row -> {
            var text = key.isEmpty() ? idText(row, at) : keyText(target, row, at);
            return text == null
                    ? null
                    : new RecordView.Link(
                            text, titleAt == 0 ? null : ColumnValues.text(row, titleAt));
        });
    }

    private static @Nullable String idText(ResultSet row, int at) throws SQLException {
        var bytes = row.getBytes(at);
        return bytes == null ? null : ColumnValues.uuid(bytes).toString();
    }

    private static @Nullable String keyText(ObjectType target, ResultSet row, int at)
            throws SQLException {
        var values = keyValues(target.keyFields(), row, at);
        return values.getFirst() == null ? null : KeyText.write(target, values);
    }

    private static List<@Nullable Object> keyValues(List<Field> key, ResultSet row, int at)
            throws SQLException {
        var values = new ArrayList<@Nullable Object>();
        for (int i = 0; i < key.size(); i++) {
            values.add(ColumnValues.read(key.get(i), row, at + i));
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
