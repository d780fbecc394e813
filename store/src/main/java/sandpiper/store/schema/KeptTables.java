package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Select;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.KeptStorage.Place;
import sandpiper.engine.port.SchemaStorage.Keeping;
import sandpiper.model.change.FieldChange;
import sandpiper.model.change.ObjectChange;
import sandpiper.model.change.PartChange;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.system.SqlKept;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/**
 * Copies what a change removes into tables of its own. There records are told by their public ids,
 * also those that are referred to, since a number may be given again to another record.
 */
final class KeptTables {
    private final SqlSession sql;
    private final Release before;
    private final Keeping keeping;

    KeptTables(SqlSession sql, Release before, Keeping keeping) {
        this.sql = sql;
        this.before = before;
        this.keeping = keeping;
    }

    /** Keeps all that goes with a change; to be called while the tables are as they were. */
    void keep(ReleaseChange change) {
        change.objects().forEach(this::keep);
    }

    private void keep(ObjectChange change) {
        var object = change.before();
        if (object == null) {
            return;
        }
        var after = change.after();
        var name = after == null ? object.name() : after.name();
        if (after == null) {
            keepRows(object, null, object.fields(), new Place(name, null, null));
        } else {
            keepValues(object, null, change.fields(), name, null);
        }
        change.parts().forEach(part -> keep(object, part, after == null, name));
    }

    private void keep(ObjectType object, PartChange change, boolean isGone, String name) {
        var part = change.before();
        if (part == null) {
            return;
        }
        var after = change.after();
        if (isGone || after == null) {
            keepRows(object, part, part.fields(), new Place(name, part.name(), null));
        } else {
            keepValues(object, part, change.fields(), name, after.name());
        }
    }

    private void keepRows(ObjectType object, @Nullable Part part, Fields fields, Place now) {
        var columns = new ArrayList<Field<?>>();
        var own = own(object, part);
        if (part == null) {
            Tables.RECORD_COLUMNS.forEach(column -> columns.add(Sql.column(own, column)));
        } else {
            columns.add(owner());
            columns.add(Sql.column(own, Tables.LINE));
            columns.add(Sql.column(own, Tables.POSITION));
        }
        fields.stream()
                .filter(field -> !field.onRead())
                .forEach(field -> columns.addAll(columns(own, field)));
        var place = new Place(object.name(), part == null ? null : part.name(), null);
        keep(place, now, from(object, part, columns, DSL.noCondition()));
    }

    private void keepValues(
            ObjectType object,
            @Nullable Part part,
            List<FieldChange> fields,
            String objectNow,
            @Nullable String partNow) {
        for (var change : fields) {
            var field = change.before();
            if (field == null) {
                continue;
            }
            var after = change.after();
            if (after == null && !field.isDerived()) {
                var now = new Place(objectNow, partNow, field.name());
                keepValues(object, part, field, field.name(), now);
            }
            for (var language : change.languagesGone()) {
                var now = new Place(objectNow, partNow, inLanguage(after, language));
                var texts = field.inLanguage(language);
                keepValues(object, part, texts, inLanguage(field, language), now);
            }
        }
    }

    /** As people write it: {@code title.de}. */
    private static String inLanguage(
            sandpiper.model.release.@Nullable Field field, String language) {
        return Place.inLanguage(Objects.requireNonNull(field).name(), language);
    }

    private void keepValues(
            ObjectType object,
            @Nullable Part part,
            sandpiper.model.release.Field field,
            String written,
            Place now) {
        var own = own(object, part);
        var columns = new ArrayList<Field<?>>();
        if (part == null) {
            columns.add(Sql.column(own, Tables.ID));
        } else {
            columns.add(owner());
            columns.add(Sql.column(own, Tables.LINE));
        }
        columns.addAll(columns(own, field));
        var isFilled =
                DSL.or(
                        Tables.columns(field).stream()
                                .map(column -> Sql.column(own, column).isNotNull())
                                .toList());
        var place = new Place(object.name(), part == null ? null : part.name(), written);
        keep(place, now, from(object, part, columns, isFilled));
    }

    private static String own(ObjectType object, @Nullable Part part) {
        return part == null ? Tables.of(object) : Tables.of(object, part);
    }

    private static final String OWNING = "_owning";

    private static Field<Object> owner() {
        return Sql.column(OWNING, Tables.ID).as(DSL.name(Tables.OWNER));
    }

    private static Select<Record> from(
            ObjectType object, @Nullable Part part, List<Field<?>> columns, Condition where) {
        var own = own(object, part);
        var selected = Tables.sql().select(columns).from(Sql.table(own));
        if (part == null) {
            return selected.where(where);
        }
        return selected.join(Sql.table(Tables.of(object)).as(DSL.name(OWNING)))
                .on(Sql.column(OWNING, Tables.NUMBER).eq(Sql.column(own, Tables.OWNER)))
                .where(where);
    }

    private List<Field<Object>> columns(String own, sandpiper.model.release.Field field) {
        if (field.type() instanceof FieldType.Reference reference) {
            var target = Sql.table(Tables.of(before.target(reference))).as(DSL.name("_target"));
            var id =
                    DSL.select(Sql.column("_target", Tables.ID))
                            .from(target)
                            .where(
                                    Sql.column("_target", Tables.NUMBER)
                                            .eq(Sql.column(own, field.name())));
            return List.of(DSL.field(id).as(DSL.name(field.name())));
        }
        return Tables.columns(field).stream().map(column -> Sql.column(own, column)).toList();
    }

    private void keep(Place place, Place now, Select<Record> rows) {
        long count = sql.number(Tables.sql().selectCount().from(rows.asTable("_rows")));
        if (count > 0) {
            long number = SqlKept.add(sql, keeping, place, now, count);
            sql.runOnce(Tables.sql().createTable(Sql.table(SqlKept.table(number))).as(rows));
        }
    }
}
