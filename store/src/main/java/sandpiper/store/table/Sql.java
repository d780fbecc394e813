package sandpiper.store.table;

import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.Param;
import org.jooq.Query;
import org.jooq.Record;
import org.jooq.SelectConditionStep;
import org.jooq.SortField;
import org.jooq.Table;
import org.jooq.impl.DSL;
import sandpiper.store.sql.Either;
import sandpiper.store.sql.Statement;

/**
 * Names and places for values in statements that jOOQ renders. A statement that does not depend on
 * what is asked is rendered once, and its values are bound in the order in which {@link #value}
 * stands in it.
 */
public final class Sql {
    private Sql() {}

    public static Table<Record> table(String name) {
        return DSL.table(DSL.name(name));
    }

    public static Field<Object> column(String name) {
        return DSL.field(DSL.name(name), Object.class);
    }

    /** A column of a table that has another name in the statement. */
    public static Field<Object> column(String of, String name) {
        return DSL.field(DSL.name(of, name), Object.class);
    }

    /** A column that holds a whole number. */
    public static Field<Long> number(String name) {
        return DSL.field(DSL.name(name), Long.class);
    }

    /** Where a value is bound later. */
    public static Param<Object> value() {
        return DSL.param("v", Object.class);
    }

    /** Where a number is bound later, such as how many rows are wanted. */
    public static Param<Long> count() {
        return DSL.param("n", Long.class);
    }

    /** Rising, what is empty first. */
    public static SortField<?> rising(Field<?> by) {
        return by.asc().nullsFirst();
    }

    /** Falling, what is empty last. */
    public static SortField<?> falling(Field<?> by) {
        return by.desc().nullsLast();
    }

    /** That a column has a value that is bound later. */
    public static Condition is(String column) {
        return column(column).eq(value());
    }

    /** That a column has a value. */
    public static Condition is(String column, String value) {
        return column(column).eq(DSL.inline(value));
    }

    /** That a text contains another, whatever their letters' size. */
    public static Condition contains(Field<?> text, Field<?> wanted) {
        return Either.condition(
                "instr(lower({0}), lower({1})) > 0",
                "strpos(lower({0}), lower({1})) > 0", text, wanted);
    }

    /**
     * A statement that takes rows for the transaction alone, and leaves out those that another has.
     * Where one writes at a time there is no other.
     */
    public static Statement claim(SelectConditionStep<?> rows) {
        return new Statement(rows).claiming();
    }

    /** A statement that does not depend on what is asked. */
    public static Statement statement(Query query) {
        return new Statement(query);
    }
}
