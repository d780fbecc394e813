package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jooq.Field;
import org.jooq.impl.DSL;
import sandpiper.model.change.FieldChange;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/**
 * Columns of a table that are taken away, renamed or brought to another form where they are. What
 * refers to the table, and what it refers to, stays tied. Names may change places, so that each
 * goes by one that nobody has.
 */
final class ColumnChanges {
    private static final String MADE = "_new_";

    private final SqlSession sql;
    private final TableSql statements;
    private final String table;
    private final List<String> drops = new ArrayList<>();
    private final List<String> renames = new ArrayList<>();
    private final List<String> arrivals = new ArrayList<>();
    private final Map<Field<Object>, Field<Object>> values = new LinkedHashMap<>();

    ColumnChanges(SqlSession sql, TableSql statements, String table) {
        this.sql = sql;
        this.statements = statements;
        this.table = table;
    }

    void make(List<FieldChange> fields) {
        fields.forEach(this::plan);
        if (!values.isEmpty()) {
            sql.runOnce(Tables.sql().update(Sql.table(table)).set(values));
        }
        drops.forEach(sql::runOnce);
        renames.forEach(sql::runOnce);
        arrivals.forEach(sql::runOnce);
    }

    private void plan(FieldChange change) {
        var before = change.before();
        var after = change.after();
        if (before == null) {
            return;
        }
        var columns = Tables.columns(before);
        if (after == null) {
            columns.forEach(column -> drops.add(statements.dropColumn(table, column)));
            return;
        }
        var wanted = Tables.columns(after);
        var conversion = new Conversion(before, after);
        if (conversion.keepsStoredForm()) {
            for (int i = 0; i < columns.size(); i++) {
                if (!columns.get(i).equals(wanted.get(i))) {
                    renames.add(
                            statements.renameColumn(table, columns.get(i), MADE + wanted.get(i)));
                    arrivals.add(
                            statements.renameColumn(table, MADE + wanted.get(i), wanted.get(i)));
                }
            }
            return;
        }
        var made = conversion.expressions().orElseThrow();
        for (int i = 0; i < wanted.size(); i++) {
            var name = MADE + wanted.get(i);
            sql.runOnce(statements.add(table, after, i, name));
            values.put(DSL.field(DSL.name(name), Object.class), made.get(i));
            arrivals.add(statements.renameColumn(table, name, wanted.get(i)));
        }
        columns.forEach(column -> drops.add(statements.dropColumn(table, column)));
    }
}
