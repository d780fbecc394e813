package sandpiper.store.sql;

import org.jooq.Condition;
import org.jooq.Context;
import org.jooq.Field;
import org.jooq.QueryPart;
import org.jooq.SQLDialect;
import org.jooq.impl.CustomCondition;
import org.jooq.impl.CustomField;
import org.jooq.impl.DSL;
import org.jooq.impl.SQLDataType;

/**
 * Expressions that read otherwise in SQLite and in PostgreSQL, side by side, so that it can be seen
 * that they mean the same. {@code {0}}, {@code {1}} stand for their parts.
 */
public final class Either {
    private Either() {}

    /** A value. */
    public static Field<Object> field(String sqlite, String postgres, QueryPart... parts) {
        return CustomField.of(
                "either",
                SQLDataType.OTHER,
                context ->
                        context.visit(
                                DSL.field(
                                        isPostgres(context) ? postgres : sqlite,
                                        Object.class,
                                        parts)));
    }

    /** Something that is true, false, or unknown. */
    public static Condition condition(String sqlite, String postgres, QueryPart... parts) {
        return CustomCondition.of(context ->
                context.visit(DSL.condition(isPostgres(context) ? postgres : sqlite, parts)));
    }

    private static boolean isPostgres(Context<?> context) {
        return context.family() == SQLDialect.POSTGRES;
    }
}
