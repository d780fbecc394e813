package sandpiper.engine.write;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.read.KeyText;
import sandpiper.logic.Quoted;
import sandpiper.model.Names;
import sandpiper.model.release.Field;

/** Checks what every record needs whatever its rules: required fields, keys, unique values. */
final class Structure {
    private final UnitOfWork unit;
    private final Workspace workspace;

    Structure(UnitOfWork unit, Workspace workspace) {
        this.unit = unit;
        this.workspace = workspace;
    }

    void check(RecordState record) {
        var object = record.object();
        for (var field : object.fields()) {
            boolean keyField = object.key().contains(field.name());
            boolean numberedLater = object.isNumbered(field) && record.isNew();
            if ((field.required() || keyField) && !numberedLater) {
                checkRequired(record, record.slots(), field, List.of());
            }
        }
        checkDistinct(record);
        for (var part : object.parts()) {
            for (int i = 0; i < record.items(part).size(); i++) {
                for (var field : part.fields()) {
                    if (field.required()) {
                        checkRequired(
                                record,
                                record.items(part).get(i).slots(),
                                field,
                                List.of(part.name(), i));
                    }
                }
            }
        }
    }

    /** Checks what no two records may share, which the tables themselves insist on. */
    void checkDistinct(RecordState record) {
        var object = record.object();
        for (var field : object.fields()) {
            boolean aloneInKey = object.key().size() == 1 && object.key().contains(field.name());
            if (field.unique() && !aloneInKey) {
                checkUnique(record, field);
            }
        }
        checkKey(record);
    }

    private void checkRequired(RecordState record, Slots slots, Field field, List<Object> at) {
        var path = new ArrayList<>(at);
        path.add(field.name());
        if (slots.get(field) == null && !unit.isFaulty(record, path)) {
            unit.add(
                    record,
                    new Fault(
                            path, RecordCode.REQUIRED, "%s is required.".formatted(field.label())));
        }
    }

    private void checkUnique(RecordState record, Field field) {
        var value = record.slots().get(field);
        if (value != null
                && record.slots().isChanged(field)
                && isTaken(record, List.of(field), List.of(value))) {
            add(
                    record,
                    new Fault(
                            List.of(field.name()),
                            RecordCode.NOT_UNIQUE,
                            "%s %s is taken by another %s."
                                    .formatted(
                                            field.label(),
                                            Quoted.of(field.type().writeText(value)),
                                            record.object().label())));
        }
    }

    private void checkKey(RecordState record) {
        if (unit.isKeyFree(record)) {
            return;
        }
        var key = record.object().keyFields();
        var values = new ArrayList<>();
        boolean changed = false;
        for (var field : key) {
            var value = record.slots().get(field);
            if (value == null) {
                return;
            }
            changed |= record.slots().isChanged(field);
            values.add(value);
        }
        if (changed && !key.isEmpty() && isTaken(record, key, values)) {
            add(
                    record,
                    new Fault(
                            List.of(key.getFirst().name()),
                            RecordCode.DUPLICATE_KEY,
                            "There is %s %s already."
                                    .formatted(
                                            Names.withArticle(record.object().label()),
                                            Quoted.of(KeyText.write(record.object(), values)))));
        }
    }

    private void add(RecordState record, Fault fault) {
        if (!unit.isFaulty(record, fault.path())) {
            unit.add(record, fault);
        }
    }

    /** Whether another record, in the tables or still in this work, has the same values. */
    private boolean isTaken(RecordState record, List<Field> fields, List<Object> values) {
        return workspace
                        .storage()
                        .another(
                                workspace.session(),
                                record.object(),
                                fields,
                                values,
                                record.number())
                        .isPresent()
                || workspace.touched().stream()
                        .anyMatch(other ->
                                other != record
                                        && other.number() < 0
                                        && other.object().name().equals(record.object().name())
                                        && sameValues(other, fields, values));
    }

    private static boolean sameValues(
            RecordState record, List<Field> fields, List<? extends @Nullable Object> values) {
        for (int i = 0; i < fields.size(); i++) {
            if (!Objects.equals(record.slots().get(fields.get(i)), values.get(i))) {
                return false;
            }
        }
        return true;
    }
}
