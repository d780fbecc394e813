package sandpiper.store.record;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.StoredRecord.StoredItem;
import sandpiper.model.release.Field;
import sandpiper.model.release.Part;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.system.SqlFiles;
import sandpiper.store.table.ColumnValues;

/** Writes the rows of a part's line items. */
record ItemRows(Part part, ObjectSql.PartSql statements) {
    void insert(SqlSession sql, long owner, StoredItem item, int position) {
        sql.run(statements.insert, values(sql, owner, item, position));
    }

    /** All at once: each statement by itself would be a way to the database and back. */
    void insertAll(SqlSession sql, long owner, List<StoredItem> items) {
        var rows = new ArrayList<@Nullable Object[]>();
        for (int i = 0; i < items.size(); i++) {
            rows.add(values(sql, owner, items.get(i), i));
        }
        if (!rows.isEmpty()) {
            sql.runAll(statements.insert, rows);
        }
    }

    private @Nullable Object[] values(SqlSession sql, long owner, StoredItem item, int position) {
        statements.files.forEach(field -> SqlFiles.keep(sql, item.values()[field.index()]));
        var values = new ArrayList<@Nullable Object>();
        values.add(owner);
        values.add(item.line());
        values.add(position);
        part.fields()
                .forEach(field -> ColumnValues.split(field, item.values()[field.index()], values));
        return values.toArray();
    }

    void update(SqlSession sql, long owner, StoredItem item, int position, List<Field> changed) {
        keepFiles(sql, statements.files, changed, item.values());
        var values = new ArrayList<@Nullable Object>();
        values.add(position);
        changed.forEach(field -> ColumnValues.split(field, item.values()[field.index()], values));
        values.add(owner);
        values.add(item.line());
        sql.run(statements.update(changed), values.toArray());
    }

    /** Keeps the bytes of files that are among what is changed. */
    static void keepFiles(
            SqlSession sql, List<Field> files, List<Field> changed, @Nullable Object[] values) {
        for (var field : files) {
            if (changed.contains(field)) {
                SqlFiles.keep(sql, values[field.index()]);
            }
        }
    }
}
