package sandpiper.engine.write;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Preview;
import sandpiper.engine.trace.Tracer;
import sandpiper.model.logic.FieldCondition;
import sandpiper.model.release.Field;
import sandpiper.model.type.FieldType;

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
            values.put(field.name(), plain(record, null, field));
        }
        for (var part : record.object().parts()) {
            var items = new ArrayList<Map<String, @Nullable Object>>();
            for (var item : record.items(part)) {
                var one = new LinkedHashMap<String, @Nullable Object>();
                if (item.line() > 0) {
                    one.put("line", item.line());
                }
                for (var field : part.fields()) {
                    one.put(field.name(), plain(record, item, field));
                }
                items.add(one);
            }
            values.put(part.name(), items);
        }
        return new Preview(
                values, flags(record), unit.faults(), unit.warnings(), List.copyOf(tracer.steps()));
    }

    private @Nullable Object plain(RecordState record, @Nullable ItemState item, Field field) {
        var slots = item == null ? record.slots() : item.slots();
        var stored = field.onRead() ? workspace.workedOut(record, item, field) : slots.get(field);
        if (stored == null) {
            return null;
        }
        if (field.type() instanceof FieldType.Reference reference) {
            return workspace.written(
                    workspace.record(workspace.release().target(reference), (Long) stored));
        }
        return field.type().write(stored);
    }

    private Map<String, Preview.FieldFlags> flags(RecordState record) {
        var flags = new LinkedHashMap<String, Preview.FieldFlags>();
        for (var field : record.object().fields()) {
            boolean key = record.object().key().contains(field.name());
            flags.put(
                    field.name(),
                    flags(record, null, field, key && !record.object().isNumbered(field)));
        }
        for (var part : record.object().parts()) {
            var items = record.items(part);
            for (int i = 0; i < items.size(); i++) {
                for (var field : part.fields()) {
                    flags.put(
                            part.name() + "." + i + "." + field.name(),
                            flags(record, items.get(i), field, false));
                }
            }
        }
        return flags;
    }

    private Preview.FieldFlags flags(
            RecordState record, @Nullable ItemState item, Field field, boolean key) {
        var guards = unit.guards();
        return new Preview.FieldFlags(
                field.required()
                        || key
                        || guards.holds(FieldCondition.Kind.REQUIRED, record, item, field),
                field.readOnly()
                        || guards.holds(FieldCondition.Kind.READ_ONLY, record, item, field)
                        || (item != null && guards.readOnly(record, item.part()) != null),
                guards.holds(FieldCondition.Kind.HIDDEN, record, item, field));
    }
}
