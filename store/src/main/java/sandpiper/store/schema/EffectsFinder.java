package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jooq.Condition;
import org.jooq.impl.DSL;
import sandpiper.engine.port.SchemaStorage.Aside;
import sandpiper.engine.port.SchemaStorage.Effects;
import sandpiper.model.change.FieldChange;
import sandpiper.model.change.ObjectChange;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.change.TypeWords;
import sandpiper.model.release.Field;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.ParsedValue;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/** Looks at the data to tell what a change would do to it. */
final class EffectsFinder {
    private final SqlSession sql;
    private final List<String> losses = new ArrayList<>();
    private final List<String> obstacles = new ArrayList<>();
    private final boolean keeps;
    private final ComebackFinder finder;
    private final List<ComebackFit> comebacks;

    EffectsFinder(SqlSession sql, Aside aside) {
        this.sql = sql;
        this.keeps = aside.keeping() != null;
        this.finder = new ComebackFinder(sql);
        this.comebacks = finder.find(aside.comebacks());
    }

    Effects find(ReleaseChange change) {
        for (var object : change.objects()) {
            find(object);
        }
        return new Effects(losses, obstacles, ComebackFinder.sentences(comebacks));
    }

    private void find(ObjectChange change) {
        if (change.before() == null) {
            return;
        }
        var shape = TableShape.of(change.before(), change.after(), change.fields());
        find(shape);
        for (var part : change.parts()) {
            if (part.before() != null && change.after() != null) {
                find(
                        TableShape.of(
                                change.before(),
                                part.before(),
                                change.after(),
                                part.after(),
                                part.fields()));
            }
        }
        findKey(change);
    }

    private void find(TableShape shape) {
        var table = Objects.requireNonNull(shape.before());
        if (isEmpty(table)) {
            return;
        }
        if (shape.isGone()) {
            losses.add(
                    keeps
                            ? "%s and %,d of its records are removed. They are kept aside for 30 days, and come back when it does."
                                    .formatted(shape.title(), rows(table))
                            : "%s and %,d of its records are removed for good."
                                    .formatted(shape.title(), rows(table)));
            return;
        }
        for (var change : shape.fields()) {
            find(shape, table, change);
        }
    }

    /** Only where it is said: counting a large table takes long. */
    private long rows(String table) {
        return count(table, DSL.noCondition());
    }

    private boolean isEmpty(String table) {
        return sql.list(
                        Tables.sql().selectOne().from(Sql.table(table)).limit(DSL.inline(1)),
                        row -> true)
                .isEmpty();
    }

    private void find(TableShape shape, String table, FieldChange change) {
        var before = change.before();
        var after = change.after();
        if (after == null && before != null) {
            // What is worked out is there again when its formula is.
            long filled = before.isDerived() ? 0 : filled(table, before);
            if (filled > 0) {
                losses.add(
                        (keeps
                                        ? "%s.%s is removed. Its value in %s is kept aside"
                                                + " for 30 days, and comes back when it does.%s"
                                        : "%s.%s is removed, and its value in %s is" + " lost.%s")
                                .formatted(
                                        shape.title(),
                                        before.name(),
                                        Counts.records(filled),
                                        renaming(shape, before)));
            }
        } else if (before == null && after != null) {
            if (after.required() && after.defaultValue() == null) {
                findMissing(shape, table, after);
            }
            if (after.unique() && after.defaultValue() != null && rows(table) > 1) {
                obstacles.add(
                        "%s.%s is unique, but its default would be the same in %,d records."
                                .formatted(shape.title(), after.name(), rows(table)));
            }
        } else if (before != null && after != null) {
            findDifference(shape, table, change, before, after);
        }
    }

    /** Records that have no value for a field that is added and required. */
    private void findMissing(TableShape shape, String table, Field field) {
        long coming = coming(shape, table, field);
        long missing = rows(table) - coming;
        if (missing > 0) {
            obstacles.add(
                    (coming == 0
                                    ? "%s.%s is required, but what is there, %s, has no value for"
                                            + " it: give it a default."
                                    : "%s.%s is required, but what was made since it went, %s, has"
                                            + " no value for it: give it a default.")
                            .formatted(shape.title(), field.name(), Counts.records(missing)));
        }
    }

    /** How many records get a value that was kept aside. */
    private long coming(TableShape shape, String table, Field field) {
        return comebacks.stream()
                .filter(fit -> !fit.comeback().isWhole() && fit.brings(field))
                .filter(fit -> Comebacks.table(fit.comeback()).equals(shape.after()))
                .mapToLong(fit ->
                        finder.filled(
                                fit, Objects.requireNonNullElse(shape.ownerBefore(), ""), table))
                .sum();
    }

    private long filled(String table, Field field) {
        return count(
                table,
                DSL.or(
                        Tables.columns(field).stream()
                                .map(column -> Sql.column(column).isNotNull())
                                .toList()));
    }

    /** How to keep the values when a field of the same type came as this one went. */
    private static String renaming(TableShape shape, Field gone) {
        var come =
                shape.fields().stream()
                        .filter(change -> change.before() == null)
                        .map(FieldChange::after)
                        .filter(Objects::nonNull)
                        .filter(field -> field.type().keyword() == gone.type().keyword())
                        .map(Field::name)
                        .toList();
        return come.size() == 1
                ? " If %s is its new name, write was: %s at it, and nothing is lost."
                        .formatted(come.getFirst(), gone.name())
                : "";
    }

    private void findDifference(
            TableShape shape, String table, FieldChange change, Field before, Field after) {
        var column = Sql.column(before.name());
        if (after.required() && !before.required()) {
            long empty = count(table, column.isNull());
            if (empty > 0) {
                obstacles.add(
                        "%s.%s is now required, but %s no value: fill them first."
                                .formatted(shape.title(), after.name(), Counts.recordsHave(empty)));
            }
        }
        if (after.unique() && !before.unique()) {
            findDuplicates(
                    shape.title() + "." + after.name() + " is now unique",
                    table,
                    List.of(before.name()));
        }
        findLanguages(shape, table, change, before);
        if (!before.type().equals(after.type())) {
            findUnfit(shape, table, new Conversion(before, after), before, after);
        }
    }

    /** Texts in languages that a field has no more. */
    private void findLanguages(TableShape shape, String table, FieldChange change, Field before) {
        for (var language : change.languagesGone()) {
            long filled = filled(table, before.inLanguage(language));
            if (filled > 0) {
                losses.add(
                        (keeps
                                        ? "%s.%s is no longer kept in %s. Its text in %s is kept"
                                                + " aside for 30 days, and comes back when the"
                                                + " language does."
                                        : "%s.%s is no longer kept in %s, and its text in %s is"
                                                + " lost.")
                                .formatted(
                                        shape.title(),
                                        ComebackFit.now(change).name(),
                                        language,
                                        Counts.records(filled)));
            }
        }
    }

    private void findUnfit(
            TableShape shape, String table, Conversion conversion, Field before, Field after) {
        var column = Sql.column(before.name());
        long filled = count(table, column.isNotNull());
        if (filled == 0) {
            return;
        }
        var name = shape.title() + "." + after.name();
        if (conversion.expressions().isEmpty()) {
            obstacles.add(
                    "%s has values in %s, and %s"
                            .formatted(name, Counts.records(filled), conversion.impossible()));
            return;
        }
        var unfit = conversion.unfit().map(condition -> count(table, condition)).orElse(0L);
        if (unfit > 0) {
            obstacles.add(
                    "%s becomes %s, but %s %s: change them first."
                            .formatted(
                                    name,
                                    TypeWords.of(after.type()),
                                    Counts.recordsHave(unfit),
                                    conversion.unfitBecause()));
        } else if (conversion.needsPatternCheck()) {
            findUnmatched(name, table, conversion, after.type());
        }
    }

    /** Looks at every value as it would be, since only the type itself knows what it takes. */
    private void findUnmatched(String name, String table, Conversion conversion, FieldType type) {
        var unfit =
                conversion.expressions().orElseThrow().stream()
                        .flatMap(made -> texts(table, made).stream())
                        .filter(text -> type.readText(text) instanceof ParsedValue.Refused)
                        .toList();
        if (!unfit.isEmpty()) {
            obstacles.add(
                    "%s becomes %s, but %s another form, such as \"%s\": change them first."
                            .formatted(
                                    name,
                                    TypeWords.of(type),
                                    Counts.recordsHave(unfit.size()),
                                    unfit.getFirst()));
        }
    }

    private List<String> texts(String table, org.jooq.Field<Object> made) {
        return sql.list(
                Tables.sql().select(made).from(Sql.table(table)).where(made.isNotNull()),
                row -> row.getString(1));
    }

    private void findKey(ObjectChange change) {
        var before = change.before();
        var after = change.after();
        if (before == null
                || after == null
                || after.key().isEmpty()
                || after.key().equals(before.key())) {
            return;
        }
        var columns = new ArrayList<String>();
        for (var name : after.key()) {
            var former =
                    change.fields().stream()
                            .filter(field ->
                                    field.after() != null && field.after().name().equals(name))
                            .findFirst()
                            .map(FieldChange::before);
            if (former.isEmpty()) {
                long rows = rows(Tables.of(before));
                if (rows > 0) {
                    obstacles.add(
                            "%s: %s is to be the key, but what is there, %s, has no value for it."
                                    .formatted(after.name(), name, Counts.records(rows)));
                }
                return;
            }
            columns.add(former.get().name());
            long empty = count(Tables.of(before), Sql.column(former.get().name()).isNull());
            if (empty > 0) {
                obstacles.add(
                        "%s: %s is to be the key, but %s no value: fill them first."
                                .formatted(after.name(), name, Counts.recordsHave(empty)));
            }
        }
        findDuplicates(
                "%s: the key is now %s".formatted(after.name(), String.join(", ", after.key())),
                Tables.of(before),
                columns);
    }

    private void findDuplicates(String what, String table, List<String> columns) {
        var fields = columns.stream().map(Sql::column).toList();
        var several =
                DSL.selectOne()
                        .from(Sql.table(table))
                        .where(fields.stream().map(org.jooq.Field::isNotNull).toList())
                        .groupBy(fields)
                        .having(DSL.count().gt(DSL.inline(1)));
        long twice =
                sql.list(Tables.sql().selectCount().from(several), row -> row.getLong(1))
                        .getFirst();
        if (twice > 0) {
            obstacles.add(
                    "%s, but %,d values are there more than once: change them first."
                            .formatted(what, twice));
        }
    }

    private long count(String table, Condition condition) {
        return sql.list(
                        Tables.sql().selectCount().from(Sql.table(table)).where(condition),
                        row -> row.getLong(1))
                .getFirst();
    }
}
