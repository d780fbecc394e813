package sandpiper.store.record;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.jooq.Condition;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.type.FileType;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/** The statements for the records of one object, rendered once for a release. */
final class ObjectSql {
    final Statement byId;
    final Statement load;
    final Statement loadByKey;
    final Statement insert;
    final Statement delete;
    final Statement keyOf;
    final Statement after;
    final Statement highest;
    final Statement count;
    final List<PartSql> parts;
    final List<Field> files;
    private final TableStatements table;
    private final Map<List<String>, Statement> updates = new ConcurrentHashMap<>();
    private final Map<List<String>, Statement> byFields = new ConcurrentHashMap<>();
    private final Map<String, Statement> referring = new ConcurrentHashMap<>();
    private final Map<Integer, Statement> byKeys = new ConcurrentHashMap<>();
    private final List<String> key;
    private final List<String> columns;

    ObjectSql(ObjectType object) {
        table = new TableStatements(Tables.of(object));
        columns = Tables.recordColumns(object.fields());
        key = firsts(object.keyFields());
        var number = Sql.number(Tables.NUMBER);
        byId = table.selectBy(Tables.ID, Tables.NUMBER, Tables.RETIRED);
        load = table.selectBy(Tables.NUMBER, array(columns));
        insert = table.insertNumbered(Tables.NUMBER, array(columns.subList(1, columns.size())));
        delete = table.delete(Sql.is(Tables.NUMBER));
        loadByKey = Sql.statement(table.select(array(columns)).where(isKey()));
        keyOf = table.selectBy(Tables.NUMBER, array(key.isEmpty() ? List.of(Tables.ID) : key));
        after =
                Sql.statement(
                        table.select(Tables.NUMBER)
                                .where(number.gt(Sql.count()))
                                .orderBy(number)
                                .limit(Sql.count()));
        highest = Sql.statement(Tables.sql().select(DSL.max(number)).from(table.table()));
        var retired = DSL.coalesce(DSL.sum(Sql.number(Tables.RETIRED)), DSL.inline(0));
        count =
                Sql.statement(
                        Tables.sql()
                                .select(DSL.count().minus(retired), retired)
                                .from(table.table()));
        files = files(object.fields());
        parts = object.parts().stream().map(part -> new PartSql(object, part)).toList();
    }

    /** The statements for one part. */
    static final class PartSql {
        final Statement load;
        final Statement insert;
        final Statement delete;
        final Statement lastLine;
        final List<Field> files;
        private final TableStatements table;
        private final Map<List<String>, Statement> updates = new ConcurrentHashMap<>();
        private final Map<String, Statement> referring = new ConcurrentHashMap<>();

        PartSql(ObjectType object, Part part) {
            table = new TableStatements(Tables.of(object, part));
            var columns = new ArrayList<>(Tables.ITEM_COLUMNS);
            columns.addAll(Tables.columns(part.fields()));
            load =
                    Sql.statement(
                            table.select(array(columns))
                                    .where(Sql.is(Tables.OWNER))
                                    .orderBy(Sql.column(Tables.POSITION)));
            insert = table.insert(array(columns));
            files = files(part.fields());
            delete = table.delete(DSL.and(Sql.is(Tables.OWNER), Sql.is(Tables.LINE)));
            lastLine =
                    Sql.statement(
                            Tables.sql()
                                    .select(DSL.max(Sql.number(Tables.LINE)))
                                    .from(table.table())
                                    .where(Sql.is(Tables.OWNER)));
        }

        Statement update(List<Field> fields) {
            return updates.computeIfAbsent(
                    Tables.columns(fields),
                    columns ->
                            table.update(
                                    Stream.concat(Stream.of(Tables.POSITION), columns.stream())
                                            .toList(),
                                    DSL.and(Sql.is(Tables.OWNER), Sql.is(Tables.LINE))));
        }
    }

    Statement update(List<Field> fields) {
        return updates.computeIfAbsent(
                Tables.columns(fields),
                columns ->
                        table.update(
                                Stream.concat(
                                                Stream.of(
                                                        Tables.VERSION,
                                                        Tables.RETIRED,
                                                        Tables.CHANGED_AT,
                                                        Tables.CHANGED_BY),
                                                columns.stream())
                                        .toList(),
                                Sql.is(Tables.NUMBER)));
    }

    private Condition isKey() {
        return DSL.and(key.stream().map(Sql::is).toList());
    }

    /** Whole records by one of so many keys. */
    Statement loadByKeys(int places) {
        return byKeys.computeIfAbsent(
                places,
                _ ->
                        Sql.statement(
                                table.select(array(columns))
                                        .where(
                                                DSL.or(
                                                        Stream.generate(this::isKey)
                                                                .limit(places)
                                                                .toList()))));
    }

    /** Finds by the values of some fields, leaving one record out. */
    Statement byFields(List<Field> fields) {
        return byFields.computeIfAbsent(
                fields.stream().map(Field::name).toList(),
                names ->
                        Sql.statement(
                                table.select(Tables.NUMBER, Tables.RETIRED)
                                        .where(names.stream().map(Sql::is).toList())
                                        .and(Sql.column(Tables.NUMBER).ne(Sql.value()))
                                        .limit(DSL.inline(1))));
    }

    /** The records that refer to one by a field of theirs, or of their line items. */
    Statement referring(@Nullable Part part, Field field) {
        if (part == null) {
            return referring.computeIfAbsent(
                    field.name(), name -> table.selectBy(name, Tables.NUMBER));
        }
        var of = parts.get(part.index());
        return of.referring.computeIfAbsent(
                field.name(),
                name ->
                        Sql.statement(
                                Tables.sql()
                                        .selectDistinct(Sql.column(Tables.OWNER))
                                        .from(of.table.table())
                                        .where(Sql.is(name))));
    }

    /** Those whose values have bytes that are kept elsewhere. */
    private static List<Field> files(Fields fields) {
        return fields.stream().filter(field -> field.type() instanceof FileType).toList();
    }

    /** Of a field with several columns the first. */
    private static List<String> firsts(List<Field> fields) {
        return fields.stream().map(field -> Tables.columns(field).getFirst()).toList();
    }

    private static String[] array(List<String> columns) {
        return columns.toArray(String[]::new);
    }
}
