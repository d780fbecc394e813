package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.port.KeptStorage.Place;
import sandpiper.engine.port.SchemaStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.change.FieldChange;
import sandpiper.model.change.ObjectChange;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.release.Field;
import sandpiper.model.release.Release;
import sandpiper.model.type.TextType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.system.SqlKept;
import sandpiper.store.table.ColumnValues;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/**
 * Makes the tables follow a release. Added columns are appended, which takes no time whatever the
 * table holds; anything else writes the table anew and puts it in the place of the old one.
 */
public final class SchemaChanger implements SchemaStorage {
    private static final Statement RENAME_SERIES =
            new TableStatements("sandpiper_series").update(List.of("object"), Sql.is("object"));

    private final HistoryStorage history;
    private final java.time.Clock clock;

    public SchemaChanger(HistoryStorage history, java.time.Clock clock) {
        this.history = history;
        this.clock = clock;
    }

    @Override
    public Effects effects(Session session, ReleaseChange change, Aside aside) {
        return new EffectsFinder(SqlSession.of(session), aside).find(change);
    }

    @Override
    public void apply(Transaction transaction, ReleaseChange change, Aside aside) {
        var sql = SqlSession.of(transaction);
        var comebacks = new ComebackFinder(sql).find(aside.comebacks());
        var keeping = aside.keeping();
        if (keeping != null) {
            new KeptTables(sql, change.before(), keeping).keep(change);
        }
        dropUnneededIndexes(sql, change);
        renameObjects(transaction, sql, change);
        // New tables first, so that others may link to them; tables that go last, so that none
        // links to them any more.
        shapes(change)
                .filter(TableShape::isNew)
                .forEach(shape ->
                        sql.runOnce(statements(sql, change).create(shape, created(shape))));
        shapes(change)
                .filter(shape -> !shape.isNew() && !shape.isGone())
                .forEach(shape -> follow(sql, change, shape));
        shapes(change)
                .filter(TableShape::isGone)
                .sorted(Comparator.comparing(shape -> shape.owner() == null))
                .forEach(shape ->
                        sql.runOnce(
                                statements(sql, change)
                                        .drop(Objects.requireNonNull(shape.before()))));
        bringBack(sql, change, comebacks);
        shapes(change)
                .flatMap(shape -> statements(sql, change).ties(shape).stream())
                .forEach(sql::runOnce);
        createIndexes(sql, change);
        if (shapes(change).anyMatch(SchemaChanger::mayBreakLinks)) {
            checkLinks(sql);
        }
    }

    /**
     * Makes the tables of a release where there are none.
     *
     * @param fill puts rows in, before they are tied to each other and looked up in indexes
     */
    public void build(Transaction transaction, Release release, Runnable fill) {
        var sql = SqlSession.of(transaction);
        var change = ReleaseChange.between(Release.EMPTY, release);
        var statements = statements(sql, change);
        shapes(change).forEach(shape -> sql.runOnce(statements.create(shape, created(shape))));
        fill.run();
        shapes(change).flatMap(shape -> statements.ties(shape).stream()).forEach(sql::runOnce);
        createIndexes(sql, change);
        checkLinks(sql);
    }

    private void bringBack(SqlSession sql, ReleaseChange change, List<ComebackFit> fits) {
        var comebacks = new Comebacks(sql, change.after());
        comebacks.bring(fits);
        for (var fit : fits) {
            if (fit.comes() && fit.comeback().isWhole()) {
                var table = Comebacks.table(fit.comeback());
                shapes(change)
                        .filter(shape -> table.equals(shape.after()))
                        .forEach(shape -> fillAdded(sql, change, shape, table, fit::brings));
            }
        }
        comebacks.forget(fits);
    }

    /** Looking at every link takes long, and one that is only added leads nowhere yet. */
    private static boolean mayBreakLinks(TableShape shape) {
        return shape.needsRebuild()
                || shape.isGone()
                || (!shape.isNew() && !Objects.equals(shape.before(), shape.after()));
    }

    private static String created(TableShape shape) {
        return Objects.requireNonNull(shape.after());
    }

    static Stream<TableShape> shapes(ReleaseChange change) {
        return change.objects().stream().flatMap(SchemaChanger::shapes);
    }

    private static Stream<TableShape> shapes(ObjectChange change) {
        var parts =
                change.parts().stream()
                        .map(part ->
                                TableShape.of(
                                        change.before(),
                                        part.before(),
                                        change.after(),
                                        part.after(),
                                        part.fields()));
        return Stream.concat(
                Stream.of(TableShape.of(change.before(), change.after(), change.fields())), parts);
    }

    private void renameObjects(Transaction transaction, SqlSession sql, ReleaseChange change) {
        for (var shape : shapes(change).toList()) {
            var before = shape.before();
            var after = shape.after();
            if (before != null && after != null && !before.equals(after)) {
                sql.runOnce(statements(sql, change).rename(before, after));
            }
        }
        for (var object : change.objects()) {
            var before = object.before();
            var after = object.after();
            if (before != null && after != null && !before.name().equals(after.name())) {
                history.renameObject(transaction, before.name(), after.name());
                sql.run(RENAME_SERIES, after.name(), before.name());
                SqlKept.renameObject(sql, before.name(), after.name());
            }
            for (var part : object.parts()) {
                var partBefore = part.before();
                var partAfter = part.after();
                if (after != null
                        && partBefore != null
                        && partAfter != null
                        && !partBefore.name().equals(partAfter.name())) {
                    SqlKept.renamePart(sql, after.name(), partBefore.name(), partAfter.name());
                }
                if (after != null && partAfter != null) {
                    renameTexts(sql, after.name(), partAfter.name(), part.fields());
                }
            }
            if (after != null) {
                renameTexts(sql, after.name(), null, object.fields());
            }
        }
    }

    /** What was kept of a text in a language follows the text. */
    private static void renameTexts(
            SqlSession sql, String object, @Nullable String part, List<FieldChange> fields) {
        for (var change : fields) {
            if (change.isRenamed() && ComebackFit.then(change).type() instanceof TextType) {
                var from = ComebackFit.then(change).name();
                SqlKept.renameTexts(
                        sql, new Place(object, part, from), ComebackFit.now(change).name());
            }
        }
    }

    private void follow(SqlSession sql, ReleaseChange change, TableShape shape) {
        var table = Objects.requireNonNull(shape.after());
        boolean alters = sql.dialect().schema().altersColumns();
        var statements = statements(sql, change);
        if (shape.needsRebuild() && !alters) {
            rebuild(sql, statements, shape, table);
        } else {
            if (shape.needsRebuild()) {
                new ColumnChanges(sql, statements, table).make(shape.fields());
            }
            for (var added : shape.fields()) {
                var field = added.after();
                if (added.isAdded() && field != null) {
                    statements.add(table, field).forEach(sql::runOnce);
                }
            }
        }
        fillAdded(sql, change, shape, table, _ -> false);
    }

    private static void rebuild(
            SqlSession sql, TableSql statements, TableShape shape, String table) {
        var made = "_new_" + table;
        sql.runOnce(statements.create(shape, made));
        var into =
                new ArrayList<>(
                        shape.owner() == null ? Tables.RECORD_COLUMNS : Tables.ITEM_COLUMNS);
        var from = new ArrayList<>(into.stream().map(Sql::column).toList());
        for (var field : shape.fields()) {
            var before = field.before();
            var after = field.after();
            if (before != null && after != null) {
                into.addAll(Tables.columns(after));
                from.addAll(new Conversion(before, after).expressions().orElseThrow());
            }
        }
        sql.runOnce(
                Tables.sql()
                        .insertInto(Sql.table(made), into.stream().map(Sql::column).toList())
                        .select(DSL.select(from).from(Sql.table(table))));
        sql.runOnce(statements.drop(table));
        sql.runOnce(statements.rename(made, table));
    }

    /**
     * Gives the records that were there the default of a field that is new.
     *
     * @param comes whether a field has values already
     */
    private void fillAdded(
            SqlSession sql,
            ReleaseChange change,
            TableShape shape,
            String table,
            Predicate<Field> comes) {
        for (var added : shape.fields()) {
            var field = added.after();
            if (!added.isAdded()
                    || field == null
                    || field.defaultValue() == null
                    || comes.test(field)) {
                continue;
            }
            var values =
                    ColumnValues.split(field, standardValue(change, shape, field.defaultValue()));
            sql.run(
                    new TableStatements(table).update(Tables.columns(field), DSL.noCondition()),
                    values.toArray());
        }
    }

    private Object standardValue(
            ReleaseChange change, TableShape shape, DefaultValue defaultValue) {
        return switch (defaultValue) {
            case DefaultValue.Fixed(var value, _) -> value;
            case DefaultValue.Today _ -> {
                var object =
                        change.after()
                                .object(
                                        Objects.requireNonNull(
                                                shape.owner() == null
                                                        ? shape.after()
                                                        : shape.owner()));
                yield java.time.LocalDate.ofInstant(clock.instant(), object.zone()).toEpochDay();
            }
            case DefaultValue.Now _ -> sandpiper.model.type.TemporalType.micros(clock.instant());
        };
    }

    private static List<Index> wanted(ReleaseChange change) {
        return change.after().objects().stream()
                .flatMap(object -> Index.of(change.after(), object).stream())
                .toList();
    }

    private static List<String> existingIndexes(SqlSession sql) {
        return sql.list(sql.dialect().schema().indexes(), row -> row.getString(1));
    }

    private static void dropUnneededIndexes(SqlSession sql, ReleaseChange change) {
        var rebuilt = new HashSet<@Nullable String>();
        shapes(change)
                .filter(shape ->
                        shape.needsRebuild() || !Objects.equals(shape.before(), shape.after()))
                .forEach(shape -> rebuilt.add(shape.after()));
        var kept =
                wanted(change).stream()
                        .filter(index -> !rebuilt.contains(index.table()))
                        .map(index -> sql.dialect().name(index.name()))
                        .toList();
        existingIndexes(sql).stream()
                .filter(name -> !kept.contains(name))
                .forEach(name -> sql.runOnce(Tables.sql().dropIndex(DSL.name(name))));
    }

    private static void createIndexes(SqlSession sql, ReleaseChange change) {
        var existing = existingIndexes(sql);
        wanted(change).stream()
                .filter(index -> !existing.contains(sql.dialect().name(index.name())))
                .forEach(index -> sql.runOnce(index.sql()));
    }

    private static TableSql statements(SqlSession sql, ReleaseChange change) {
        return new TableSql(sql.dialect(), change.after());
    }

    private static void checkLinks(SqlSession sql) {
        var statement = sql.dialect().schema().brokenLinks();
        var broken = statement == null ? List.of() : sql.list(statement, row -> row.getString(1));
        if (!broken.isEmpty()) {
            throw new IllegalStateException(
                    "Links would be broken: " + broken.stream().distinct().toList());
        }
    }
}
