package sandpiper.store.table;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.SelectWhereStep;
import org.jooq.Table;
import org.jooq.impl.DSL;
import sandpiper.store.sql.Statement;

/** The usual statements of a table, rendered by jOOQ; see {@link Sql} for how values are bound. */
public final class TableStatements {
    private static final String NUMBER = "number";

    private final String name;
    private final Table<Record> table;

    public TableStatements(String name) {
        this.name = name;
        this.table = Sql.table(name);
    }

    /** The table in statements of other kinds. */
    public Table<Record> table() {
        return table;
    }

    /** The table under another name. */
    public Table<Record> as(String alias) {
        return Sql.table(name).as(DSL.name(alias));
    }

    /** One of its columns that holds a whole number, where another table's is meant beside it. */
    public Field<Long> number(String column) {
        return DSL.field(DSL.name(name, column), Long.class);
    }

    /** One of its columns, where another table's is meant beside it. */
    public Field<Object> column(String column) {
        return Sql.column(name, column);
    }

    private static List<Field<Object>> fields(Stream<String> columns) {
        return columns.map(Sql::column).toList();
    }

    /** Reads columns. */
    public SelectWhereStep<Record> select(String... columns) {
        return Tables.sql().select(fields(Stream.of(columns))).from(table);
    }

    /** Reads columns of the row, or rows, where one of them has a value. */
    public Statement selectBy(String by, String... columns) {
        return Sql.statement(select(columns).where(Sql.is(by)));
    }

    /** Adds a row. */
    public Statement insert(String... columns) {
        return Sql.statement(
                Tables.sql()
                        .insertInto(table, fields(Stream.of(columns)))
                        .values(Collections.nCopies(columns.length, Sql.value())));
    }

    /** Adds a row and gives what numbers it. */
    public Statement insertNumbered(String number, String... columns) {
        return insert(columns).returning(number);
    }

    /** Adds a row, or changes the one that has the same key. */
    public Statement put(List<String> key, String... others) {
        var columns = fields(Stream.concat(key.stream(), Stream.of(others)));
        Map<Field<Object>, Field<Object>> changed = new LinkedHashMap<>();
        fields(Stream.of(others)).forEach(one -> changed.put(one, DSL.excluded(one)));
        return Sql.statement(
                Tables.sql()
                        .insertInto(table, columns)
                        .values(Collections.nCopies(columns.size(), Sql.value()))
                        .onConflict(fields(key.stream()))
                        .doUpdate()
                        .set(changed));
    }

    /** Changes columns of rows. */
    public Statement update(List<String> columns, Condition where) {
        Map<Field<Object>, Field<Object>> changed = new LinkedHashMap<>();
        columns.forEach(one -> changed.put(Sql.column(one), Sql.value()));
        return Sql.statement(Tables.sql().update(table).set(changed).where(where));
    }

    /** Takes rows away. */
    public Statement delete(Condition where) {
        return Sql.statement(Tables.sql().deleteFrom(table).where(where));
    }

    /** Takes all away but the newest, by their numbers; how many stay is bound. */
    public Statement keepNewest() {
        var newest = Tables.sql().select(DSL.max(Sql.number(NUMBER))).from(table).<Long>asField();
        return delete(Sql.number(NUMBER).le(newest.minus(Sql.count())));
    }
}
