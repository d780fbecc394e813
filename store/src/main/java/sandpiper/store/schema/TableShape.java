package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.change.FieldChange;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.store.table.Tables;

/**
 * A table before and after: that of an object, or of one of its parts.
 *
 * @param before its name, or {@code null} when it is new
 * @param after its name, or {@code null} when it goes
 * @param owner the table whose rows own these, or {@code null} for an object's own table
 * @param ownerBefore the same before, or {@code null} when it is new as well
 * @param title what people call it
 */
record TableShape(
        @Nullable String before,
        @Nullable String after,
        @Nullable String owner,
        @Nullable String ownerBefore,
        String title,
        List<FieldChange> fields) {

    static TableShape of(
            @Nullable ObjectType before, @Nullable ObjectType after, List<FieldChange> fields) {
        return new TableShape(
                before == null ? null : Tables.of(before),
                after == null ? null : Tables.of(after),
                null,
                null,
                Objects.requireNonNull(after == null ? before : after).name(),
                fields);
    }

    static TableShape of(
            @Nullable ObjectType objectBefore,
            @Nullable Part before,
            @Nullable ObjectType objectAfter,
            @Nullable Part after,
            List<FieldChange> fields) {
        var object = Objects.requireNonNull(objectAfter == null ? objectBefore : objectAfter);
        return new TableShape(
                before == null || objectBefore == null ? null : Tables.of(objectBefore, before),
                after == null || objectAfter == null ? null : Tables.of(objectAfter, after),
                Tables.of(object),
                objectBefore == null ? null : Tables.of(objectBefore),
                object.name() + "." + Objects.requireNonNull(after == null ? before : after).name(),
                fields);
    }

    boolean isNew() {
        return before == null;
    }

    boolean isGone() {
        return after == null;
    }

    /**
     * Whether rows must be written anew; otherwise columns are only added at the end, which takes
     * no time.
     */
    boolean needsRebuild() {
        return !isNew()
                && !isGone()
                && fields.stream()
                        .anyMatch(field ->
                                field.isRemoved()
                                        || field.isRenamed()
                                        || (field.before() != null
                                                && field.after() != null
                                                && !columnsOf(field.before())
                                                        .equals(columnsOf(field.after())))
                                        || changesStoredForm(field));
    }

    private static boolean changesStoredForm(FieldChange change) {
        if (change.before() == null || change.after() == null || !change.changesType()) {
            return false;
        }
        var kept = Tables.columns(change.before()).stream().map(Tables::quoted).toList();
        return !new Conversion(change.before(), change.after())
                .expressions()
                .orElse(List.of())
                .equals(kept);
    }

    private static List<String> columnsOf(Field field) {
        return Tables.columns(field);
    }

    List<Field> fieldsAfter() {
        var after = new ArrayList<Field>();
        for (var change : fields) {
            var field = change.after();
            if (field != null) {
                after.add(field);
            }
        }
        return after;
    }

    /** The statement that makes the table under a name. */
    String create(Release release, String name) {
        var columns = new ArrayList<String>();
        if (owner == null) {
            columns.add("%s integer primary key".formatted(Tables.quoted(Tables.NUMBER)));
            columns.add("%s blob not null unique".formatted(Tables.quoted(Tables.ID)));
            columns.add("%s integer not null".formatted(Tables.quoted(Tables.VERSION)));
            columns.add("%s integer not null".formatted(Tables.quoted(Tables.RETIRED)));
            columns.add("%s integer not null".formatted(Tables.quoted(Tables.CREATED_AT)));
            columns.add("%s text not null".formatted(Tables.quoted(Tables.CREATED_BY)));
            columns.add("%s integer not null".formatted(Tables.quoted(Tables.CHANGED_AT)));
            columns.add("%s text not null".formatted(Tables.quoted(Tables.CHANGED_BY)));
        } else {
            columns.add(
                    "%s integer not null references %s on delete cascade"
                            .formatted(Tables.quoted(Tables.OWNER), Tables.quoted(owner)));
            columns.add("%s integer not null".formatted(Tables.quoted(Tables.LINE)));
            columns.add("%s integer not null".formatted(Tables.quoted(Tables.POSITION)));
        }
        fieldsAfter().forEach(field -> columns.addAll(columnDefinitions(release, field)));
        if (owner == null) {
            return "create table %s (%s) strict"
                    .formatted(Tables.quoted(name), String.join(", ", columns));
        }
        columns.add(
                "primary key (%s, %s)"
                        .formatted(Tables.quoted(Tables.OWNER), Tables.quoted(Tables.LINE)));
        return "create table %s (%s) strict, without rowid"
                .formatted(Tables.quoted(name), String.join(", ", columns));
    }

    /** The columns of one field as they stand in a statement that makes or adds them. */
    static List<String> columnDefinitions(Release release, Field field) {
        var definitions = new ArrayList<String>();
        var types = field.type().columns();
        var names = Tables.columns(field);
        for (int i = 0; i < names.size(); i++) {
            var type = types.get(i).storage() == FieldType.Storage.INTEGER ? "integer" : "text";
            var link =
                    field.type() instanceof FieldType.Reference reference
                            ? " references " + Tables.quoted(Tables.of(release.target(reference)))
                            : "";
            definitions.add(Tables.quoted(names.get(i)) + " " + type + link);
        }
        return definitions;
    }
}
