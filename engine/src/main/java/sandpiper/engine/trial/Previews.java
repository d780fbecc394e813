package sandpiper.engine.trial;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Preview;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.ItemState;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.WorkStoppedException;
import sandpiper.engine.work.Workspace;
import sandpiper.engine.write.UnitOfWork;
import sandpiper.model.logic.FieldCondition;
import sandpiper.model.release.Field;

/** Shows a record as it stands in a unit of work. */
final class Previews {
    private final UnitOfWork unit;
    private final Workspace workspace;

    Previews(UnitOfWork unit) {
        this.unit = unit;
        this.workspace = unit.workspace();
    }

    Preview of(RecordState record, Tracer tracer) {
        var values = new LinkedHashMap<String, @Nullable Object>();
        for (var field : record.object().fields()) {
            values.put(field.name(), plain(record, field));
        }
        for (var part : record.object().parts()) {
            var items = new ArrayList<Map<String, @Nullable Object>>();
            for (var item : record.items(part)) {
                var one = new LinkedHashMap<String, @Nullable Object>();
                if (item.line() > 0) {
                    one.put("line", item.line());
                }
                for (var field : part.fields()) {
                    one.put(field.name(), plain(item, field));
                }
                items.add(one);
            }
            values.put(part.name(), items);
        }
        return new Preview(
                values,
                flags(record),
                unit.faults().all(),
                unit.faults().warnings(),
                List.copyOf(tracer.steps()));
    }

    private @Nullable Object plain(Row row, Field field) {
        var stored = stored(row, field);
        if (stored == null) {
            return null;
        }
        return field.isReference()
                ? workspace.record(workspace.release().target(field), (Long) stored).keyText()
                : field.type().write(stored);
    }

    private Map<String, Preview.FieldFlags> flags(RecordState record) {
        var flags = new LinkedHashMap<String, Preview.FieldFlags>();
        for (var field : record.object().fields()) {
            boolean key = record.object().key().contains(field.name());
            flags.put(
                    field.name(), flags(record, field, key && !record.object().isNumbered(field)));
        }
        for (var part : record.object().parts()) {
            var items = record.items(part);
            for (int i = 0; i < items.size(); i++) {
                for (var field : part.fields()) {
                    flags.put(
                            part.name() + "." + i + "." + field.name(),
                            flags(items.get(i), field, false));
                }
            }
        }
        return flags;
    }

    private Preview.FieldFlags flags(Row row, Field field, boolean key) {
        return new Preview.FieldFlags(
                field.required() || key || holds(FieldCondition.Kind.REQUIRED, row, field),
                field.readOnly()
                        || holds(FieldCondition.Kind.READ_ONLY, row, field)
                        || (row instanceof ItemState item && isFixed(item)),
                holds(FieldCondition.Kind.HIDDEN, row, field));
    }

    /** What cannot be asked of the tables, since they would not take the record, is left open. */
    private @Nullable Object stored(Row row, Field field) {
        if (!field.onRead()) {
            return row.slots().get(field);
        }
        try {
            return workspace.workedOut(row, field);
        } catch (WorkStoppedException _) {
            return null;
        }
    }

    private boolean holds(FieldCondition.Kind kind, Row row, Field field) {
        return asked(() -> unit.constraints().holds(kind, row, field));
    }

    private boolean isFixed(ItemState item) {
        return asked(() -> unit.constraints().readOnly(item.record(), item.part()) != null);
    }

    private static boolean asked(BooleanSupplier question) {
        try {
            return question.getAsBoolean();
        } catch (WorkStoppedException _) {
            return false;
        }
    }
}
