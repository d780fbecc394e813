package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.change.FieldChange;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
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
        return !new Conversion(change.before(), change.after()).keepsStoredForm();
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
}
