package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Select;
import org.jooq.Table;
import org.jooq.impl.DSL;
import sandpiper.engine.port.Comeback;
import sandpiper.model.change.FieldChange;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.system.SqlKept;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/**
 * Puts what was kept aside into tables that have followed a change: first records and line items,
 * then values, then what refers to others, since those may just have come back themselves. A
 * reference to a record that is not there any more stays empty.
 */
final class Comebacks {
    private static final String KEPT = "_kept";
    private static final String OWNING = "_owning";
    private static final String RECORD = "_record";
    private static final String LINE = "_at_line";

    private final SqlSession sql;
    private final Release after;

    Comebacks(SqlSession sql, Release after) {
        this.sql = sql;
        this.after = after;
    }

    /** Brings back all that fits, in the order given; objects before their parts. */
    void bring(List<ComebackFit> fits) {
        var coming = fits.stream().filter(ComebackFit::comes).toList();
        for (var fit : coming) {
            if (fit.comeback().isWhole()) {
                bringRows(fit);
            } else {
                bringValues(fit);
            }
        }
        for (var fit : coming) {
            fit.fields().stream().filter(Comebacks::isReference).forEach(field -> link(fit, field));
        }
    }

    /** Takes out of what is kept aside all that came back as a whole. */
    void forget(List<ComebackFit> fits) {
        fits.stream()
                .filter(fit -> fit.comes() && fit.misfits().isEmpty())
                .forEach(fit -> SqlKept.remove(sql, fit.comeback().kept().number()));
    }

    static boolean isReference(FieldChange change) {
        return ComebackFit.now(change).type() instanceof FieldType.Reference;
    }

    private static Table<Record> kept(Comeback comeback) {
        return Sql.table(SqlKept.table(comeback.kept().number()));
    }

    static String table(Comeback comeback) {
        var part = comeback.part();
        return part == null ? Tables.of(comeback.object()) : Tables.of(comeback.object(), part);
    }

    private static List<String> columns(List<FieldChange> fields) {
        return fields.stream()
                .flatMap(field -> Tables.columns(ComebackFit.now(field)).stream())
                .toList();
    }

    /** The values in their new form, each under the name of the column it goes to. */
    private static List<Field<Object>> converted(List<FieldChange> fields) {
        var converted = new ArrayList<Field<Object>>();
        for (var field : fields) {
            var names = Tables.columns(ComebackFit.now(field));
            var expressions =
                    new Conversion(ComebackFit.then(field), ComebackFit.now(field))
                            .expressions()
                            .orElseThrow();
            for (int i = 0; i < names.size(); i++) {
                converted.add(expressions.get(i).as(DSL.name(names.get(i))));
            }
        }
        return converted;
    }

    private static List<FieldChange> plain(ComebackFit fit) {
        return fit.fields().stream().filter(field -> !isReference(field)).toList();
    }

    private void bringRows(ComebackFit fit) {
        var comeback = fit.comeback();
        var plain = plain(fit);
        boolean isObject = comeback.part() == null;
        var into = new ArrayList<>(isObject ? Tables.RECORD_COLUMNS : Tables.ITEM_COLUMNS);
        var values = new ArrayList<Field<?>>();
        into.forEach(column -> values.add(Sql.column(column)));
        values.addAll(converted(plain));
        into.addAll(columns(plain));
        var rows = Tables.sql().select(values).from(kept(comeback));
        sql.runOnce(
                Tables.sql()
                        .insertInto(
                                Sql.table(table(comeback)), into.stream().map(Sql::column).toList())
                        .select(isObject ? rows : ofOwners(comeback, rows, into)));
        if (isObject) {
            RowNumbers.goOn(sql, table(comeback), Tables.NUMBER);
        }
    }

    /** The line items with the numbers of the records they belong to, where these are there. */
    private static Select<Record> ofOwners(
            Comeback comeback, Select<Record> rows, List<String> columns) {
        var items = DSL.table(rows).as(DSL.name(KEPT));
        var selected = new ArrayList<Field<?>>();
        selected.add(Sql.column(OWNING, Tables.NUMBER));
        columns.stream().skip(1).forEach(column -> selected.add(Sql.column(KEPT, column)));
        return Tables.sql()
                .select(selected)
                .from(items)
                .join(owners(comeback))
                .on(Sql.column(OWNING, Tables.ID).eq(Sql.column(KEPT, Tables.OWNER)));
    }

    private static Table<Record> owners(Comeback comeback) {
        return Sql.table(Tables.of(comeback.object())).as(DSL.name(OWNING));
    }

    private void bringValues(ComebackFit fit) {
        var plain = plain(fit);
        if (!plain.isEmpty()) {
            update(fit.comeback(), columns(plain), converted(plain));
        }
    }

    private void link(ComebackFit fit, FieldChange field) {
        var comeback = fit.comeback();
        var name = ComebackFit.now(field).name();
        var target = Sql.table(Tables.of(after.target(ComebackFit.now(field))));
        var number =
                DSL.select(Sql.column("_target", Tables.NUMBER))
                        .from(target.as(DSL.name("_target")))
                        .where(
                                Sql.column("_target", Tables.ID)
                                        // The other record may have a field of the same name.
                                        .eq(
                                                Sql.column(
                                                        SqlKept.table(comeback.kept().number()),
                                                        ComebackFit.then(field).name())));
        update(
                comeback,
                List.of(name),
                List.of(DSL.field(number).coerce(Object.class).as(DSL.name(name))));
    }

    /** Sets columns of the rows that were kept aside and are there. */
    private void update(Comeback comeback, List<String> columns, List<Field<Object>> values) {
        boolean isObject = comeback.part() == null;
        var inner = new ArrayList<Field<?>>();
        inner.add(Sql.column(isObject ? Tables.ID : Tables.OWNER).as(DSL.name(RECORD)));
        if (!isObject) {
            inner.add(Sql.column(Tables.LINE).as(DSL.name(LINE)));
        }
        inner.addAll(values);
        var rows = Tables.sql().select(inner).from(kept(comeback));
        Map<Field<Object>, Field<Object>> changed = new LinkedHashMap<>();
        columns.forEach(column -> changed.put(Sql.column(column), Sql.column(KEPT, column)));
        var own = table(comeback);
        var source = DSL.table(rows).as(DSL.name(KEPT));
        sql.runOnce(
                Tables.sql()
                        .update(Sql.table(own))
                        .set(changed)
                        .from(isObject ? source : source.join(owners(comeback)).on(owned()))
                        .where(isObject ? ofRecord(own) : ofItem(own)));
    }

    private static Condition owned() {
        return Sql.column(OWNING, Tables.ID).eq(Sql.column(KEPT, RECORD));
    }

    private static Condition ofRecord(String own) {
        return Sql.column(own, Tables.ID).eq(Sql.column(KEPT, RECORD));
    }

    private static Condition ofItem(String own) {
        return Sql.column(own, Tables.OWNER)
                .eq(Sql.column(OWNING, Tables.NUMBER))
                .and(Sql.column(own, Tables.LINE).eq(Sql.column(KEPT, LINE)));
    }
}
