package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.List;
import org.jooq.Condition;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.Comeback;
import sandpiper.model.change.FieldChange;
import sandpiper.model.change.TypeWords;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.ParsedValue;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.system.SqlKept;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/** Looks at what was kept aside to tell what of it can come back. */
final class ComebackFinder {
    private final SqlSession sql;

    ComebackFinder(SqlSession sql) {
        this.sql = sql;
    }

    List<ComebackFit> find(List<Comeback> comebacks) {
        return comebacks.stream().map(this::find).toList();
    }

    private ComebackFit find(Comeback comeback) {
        var fitting = new ArrayList<FieldChange>();
        var misfits = new ArrayList<String>();
        for (var field : comeback.fields()) {
            var why = misfit(comeback, field);
            if (why == null) {
                fitting.add(field);
            } else {
                misfits.add(why);
            }
        }
        return new ComebackFit(comeback, fitting, misfits, hindrance(comeback, fitting, misfits));
    }

    /** Why the values of a field cannot come back, or {@code null}. */
    private @Nullable String misfit(Comeback comeback, FieldChange change) {
        var then = ComebackFit.then(change);
        var now = ComebackFit.now(change);
        var name = written(comeback, now);
        boolean wasReference = then.type() instanceof FieldType.Reference;
        if (wasReference || now.type() instanceof FieldType.Reference) {
            return wasReference && now.type() instanceof FieldType.Reference
                    ? null
                    : staysAside(name, now);
        }
        var conversion = new Conversion(then, now);
        var values = conversion.expressions();
        if (values.isEmpty()
                || conversion.unfit().map(unfit -> count(comeback, unfit)).orElse(0L) > 0
                || (conversion.needsPatternCheck()
                        && !areTaken(comeback, now.type(), values.get()))) {
            return staysAside(name, now);
        }
        return now.unique() && hasDuplicates(comeback, List.of(then.name()))
                ? "%s: its values stay aside, because some are there more than once."
                        .formatted(name)
                : null;
    }

    private static String staysAside(String name, Field now) {
        return "%s: its values stay aside, because they do not fit %s."
                .formatted(name, TypeWords.of(now.type()));
    }

    static String written(Comeback comeback, Field field) {
        var part = comeback.part();
        return "%s%s.%s"
                .formatted(
                        comeback.object().name(),
                        part == null ? "" : "." + part.name(),
                        comeback.isWhole() ? field.name() : comeback.kept().now().field());
    }

    private boolean areTaken(
            Comeback comeback, FieldType type, List<org.jooq.Field<Object>> values) {
        return values.stream()
                .flatMap(value ->
                        sql
                                .list(
                                        Tables.sql()
                                                .select(value)
                                                .from(kept(comeback))
                                                .where(value.isNotNull()),
                                        row -> row.getString(1))
                                .stream())
                .noneMatch(text -> type.readText(text) instanceof ParsedValue.Refused);
    }

    private static org.jooq.Table<org.jooq.Record> kept(Comeback comeback) {
        return Sql.table(SqlKept.table(comeback.kept().number()));
    }

    private long count(Comeback comeback, Condition condition) {
        return sql.list(
                        Tables.sql().selectCount().from(kept(comeback)).where(condition),
                        row -> row.getLong(1))
                .getFirst();
    }

    private boolean hasDuplicates(Comeback comeback, List<String> columns) {
        var fields = columns.stream().map(Sql::column).toList();
        return !sql.list(
                        Tables.sql()
                                .selectOne()
                                .from(kept(comeback))
                                .where(fields.stream().map(org.jooq.Field::isNotNull).toList())
                                .groupBy(fields)
                                .having(DSL.count().gt(DSL.inline(1)))
                                .limit(DSL.inline(1)),
                        row -> true)
                .isEmpty();
    }

    private @Nullable String hindrance(
            Comeback comeback, List<FieldChange> fitting, List<String> misfits) {
        if (!comeback.isWhole()) {
            return misfits.isEmpty() ? null : misfits.getFirst();
        }
        for (var field : fieldsOf(comeback)) {
            if (field.required()
                    && !field.isDerived()
                    && field.defaultValue() == null
                    && !isFilled(comeback, fitting, field)) {
                return "%s stay aside, because %s is required and not all of them have a value."
                        .formatted(whole(comeback), field.name());
            }
        }
        var key = comeback.part() == null ? comeback.object().key() : List.<String>of();
        if (!key.isEmpty()) {
            var former = new ArrayList<String>();
            for (var name : key) {
                fitting.stream()
                        .filter(one -> ComebackFit.now(one).name().equals(name))
                        .forEach(one -> former.add(ComebackFit.then(one).name()));
            }
            if (former.size() < key.size() || hasDuplicates(comeback, former)) {
                return "%s stay aside, because %s would not be their key."
                        .formatted(whole(comeback), String.join(", ", key));
            }
        }
        return null;
    }

    private static Fields fieldsOf(Comeback comeback) {
        var part = comeback.part();
        return part == null ? comeback.object().fields() : part.fields();
    }

    private boolean isFilled(Comeback comeback, List<FieldChange> fitting, Field field) {
        return fitting.stream()
                .filter(one -> ComebackFit.now(one).name().equals(field.name()))
                .anyMatch(one ->
                        count(comeback, Sql.column(ComebackFit.then(one).name()).isNull()) == 0);
    }

    private static String whole(Comeback comeback) {
        var part = comeback.part();
        return part == null
                ? "%s: %s"
                        .formatted(comeback.object().name(), Counts.records(comeback.kept().rows()))
                : "%s.%s: %s"
                        .formatted(
                                comeback.object().name(),
                                part.name(),
                                Counts.of(comeback.kept().rows(), "line item", "line items"));
    }

    /**
     * How many rows there are now that get a value.
     *
     * @param fit of the values of one field
     * @param object the object's table as it is called now
     * @param table the table the field is in, as it is called now
     */
    long filled(ComebackFit fit, String object, String table) {
        var kept = kept(fit.comeback()).as(DSL.name("_kept"));
        var own = Sql.table(table).as(DSL.name("_own"));
        var found =
                fit.comeback().part() == null
                        ? Tables.sql()
                                .selectCount()
                                .from(kept)
                                .join(own)
                                .on(
                                        Sql.column("_own", Tables.ID)
                                                .eq(Sql.column("_kept", Tables.ID)))
                        : Tables.sql()
                                .selectCount()
                                .from(kept)
                                .join(Sql.table(object).as(DSL.name("_owning")))
                                .on(
                                        Sql.column("_owning", Tables.ID)
                                                .eq(Sql.column("_kept", Tables.OWNER)))
                                .join(own)
                                .on(
                                        Sql.column("_own", Tables.OWNER)
                                                .eq(Sql.column("_owning", Tables.NUMBER))
                                                .and(
                                                        Sql.column("_own", Tables.LINE)
                                                                .eq(
                                                                        Sql.column(
                                                                                "_kept",
                                                                                Tables.LINE))));
        return sql.list(found, row -> row.getLong(1)).getFirst();
    }

    /** What a person is told of what comes back, and of what stays aside. */
    static List<String> sentences(List<ComebackFit> fits) {
        var sentences = new ArrayList<String>();
        for (var fit : fits) {
            var comeback = fit.comeback();
            var hindrance = fit.hindrance();
            if (hindrance != null) {
                sentences.add(hindrance);
                continue;
            }
            var since = "kept aside since release %d".formatted(comeback.kept().release());
            sentences.add(
                    comeback.isWhole()
                            ? "%s come back, %s.".formatted(whole(comeback), since)
                            : "%s: its values in %s come back, %s."
                                    .formatted(
                                            written(
                                                    comeback,
                                                    ComebackFit.now(fit.fields().getFirst())),
                                            comeback.part() == null
                                                    ? Counts.records(comeback.kept().rows())
                                                    : Counts.of(
                                                            comeback.kept().rows(),
                                                            "line item",
                                                            "line items"),
                                            since));
            sentences.addAll(fit.misfits());
        }
        return sentences;
    }
}
