package sandpiper.store.record;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jooq.Table;
import org.jooq.impl.DSL;
import sandpiper.model.release.Field;
import sandpiper.model.release.Release;
import sandpiper.store.table.Tables;

/** The tables of one select: the record's own, and one for each path of references that is used. */
final class Joins {
    private static final String ROOT = "r";

    private final Release release;
    private final String table;
    private final String root;
    private final Map<String, Step> steps = new LinkedHashMap<>();

    private record Step(String alias, String fromAlias, String fromColumn, String table) {}

    Joins(Release release, String table) {
        this(release, table, ROOT);
    }

    private Joins(Release release, String table, String root) {
        this.release = release;
        this.table = table;
        this.root = root;
    }

    /** The tables of a select within this one. */
    Joins inside(String other) {
        return new Joins(release, other, root + root.charAt(0));
    }

    /** A column as a jOOQ field; what is on the way to it is joined. */
    org.jooq.Field<Object> column(ColumnRef ref) {
        return DSL.field(DSL.name(alias(ref.via()), ref.column()), Object.class);
    }

    private String alias(List<Field> via) {
        var alias = root;
        for (var step : via) {
            var next = alias + "_" + step.name();
            var from = alias;
            var target = release.target(step);
            steps.computeIfAbsent(next, _ -> new Step(next, from, step.name(), Tables.of(target)));
            alias = next;
        }
        return alias;
    }

    /** The table with everything joined that has been asked for. */
    Table<?> from() {
        Table<?> from = DSL.table(DSL.name(table)).as(DSL.name(root));
        for (var step : steps.values()) {
            from =
                    from.leftJoin(DSL.table(DSL.name(step.table())).as(DSL.name(step.alias())))
                            .on(
                                    DSL.field(
                                                    DSL.name(step.fromAlias(), step.fromColumn()),
                                                    Long.class)
                                            .eq(
                                                    DSL.field(
                                                            DSL.name(step.alias(), Tables.NUMBER),
                                                            Long.class)));
        }
        return from;
    }
}
