package sandpiper.engine.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.NumberSeries;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.TouchedRecords;
import sandpiper.logic.Quoted;
import sandpiper.model.Names;
import sandpiper.model.release.Field;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;

/** Checks what every record needs whatever its rules: required fields, keys, unique values. */
public final class IntegrityChecks {
    private final RecordStorage storage;
    private final Session session;
    private final TouchedRecords touched;
    private final NumberSeries numbers;
    private final FaultLog faults;
    private @Nullable Map<Distinct, Map<List<@Nullable Object>, List<RecordState>>> checking;

    public IntegrityChecks(
            RecordStorage storage,
            Session session,
            TouchedRecords touched,
            NumberSeries numbers,
            FaultLog faults) {
        this.storage = storage;
        this.session = session;
        this.touched = touched;
        this.numbers = numbers;
        this.faults = faults;
    }

    /** What no two records may share: fields of an object. */
    private record Distinct(String object, List<Field> fields) {}

    /** Checks many records, whose values do not change meanwhile. */
    public void gathered(Runnable checks) {
        checking = new HashMap<>();
        try {
            checks.run();
        } finally {
            checking = null;
        }
    }

    public void check(RecordState record) {
        var object = record.object();
        for (var field : object.fields()) {
            boolean keyField = object.key().contains(field.name());
            boolean numberedLater = object.isNumbered(field) && record.isNew();
            if ((field.required() || keyField) && !numberedLater) {
                checkRequired(record, field);
            }
        }
        checkDistinct(record);
        for (var part : object.parts()) {
            for (var item : record.items(part)) {
                for (var field : part.fields()) {
                    if (field.required()) {
                        checkRequired(item, field);
                    }
                }
            }
        }
    }

    /**
     * Checks what no two records may share, which the tables themselves insist on; tells whether
     * they would take the record.
     */
    boolean checkDistinct(RecordState record) {
        var object = record.object();
        boolean isDistinct = true;
        for (var field : object.fields()) {
            boolean aloneInKey = object.key().size() == 1 && object.key().contains(field.name());
            if (field.unique() && !aloneInKey) {
                isDistinct &= checkUnique(record, field);
            }
        }
        // Both are told, so both are asked.
        boolean hasOwnKey = checkKey(record);
        return isDistinct && hasOwnKey;
    }

    private void checkRequired(Row row, Field field) {
        if (row.slots().get(field) == null) {
            add(
                    row.record(),
                    new Fault(
                            row.path(field),
                            RecordCode.REQUIRED,
                            "%s is required.".formatted(field.label())));
        }
    }

    private boolean checkUnique(RecordState record, Field field) {
        var value = record.slots().get(field);
        if (value == null
                || !record.slots().isChanged(field)
                || !isTaken(record, List.of(field), List.of(value))) {
            return true;
        }
        add(
                record,
                new Fault(
                        FaultPath.of(field.name()),
                        RecordCode.NOT_UNIQUE,
                        "%s %s is taken by another %s."
                                .formatted(
                                        field.label(),
                                        Quoted.of(field.type().writeText(value)),
                                        record.object().label())));
        return false;
    }

    private boolean checkKey(RecordState record) {
        if (numbers.isKeyFree(record)) {
            return true;
        }
        var key = record.object().keyFields();
        var values = new ArrayList<>();
        boolean changed = false;
        for (var field : key) {
            var value = record.slots().get(field);
            if (value == null) {
                return true;
            }
            changed |= record.slots().isChanged(field);
            values.add(value);
        }
        if (!changed || key.isEmpty() || !isTaken(record, key, values)) {
            return true;
        }
        add(
                record,
                new Fault(
                        FaultPath.of(key.getFirst().name()),
                        RecordCode.DUPLICATE_KEY,
                        "There is %s %s already."
                                .formatted(
                                        Names.withArticle(record.object().label()),
                                        Quoted.of(KeyText.write(record.object(), values)))));
        return false;
    }

    private void add(RecordState record, Fault fault) {
        if (!faults.isFaulty(record, fault.path())) {
            faults.add(record, fault);
        }
    }

    /** Whether another record, in the tables or still in this work, has the same values. */
    private boolean isTaken(RecordState record, List<Field> fields, List<Object> values) {
        return storage.another(session, record.object(), fields, values, record.number())
                        .isPresent()
                || unsaved(record.object(), fields).getOrDefault(values, List.of()).stream()
                        .anyMatch(other -> other != record);
    }

    /**
     * Records of this work that are in no table yet, by some of their values. While many are
     * checked one after the other they are gathered once.
     */
    private Map<List<@Nullable Object>, List<RecordState>> unsaved(
            ObjectType object, List<Field> fields) {
        return checking == null
                ? gather(object, fields)
                : checking.computeIfAbsent(
                        new Distinct(object.name(), fields), _ -> gather(object, fields));
    }

    private Map<List<@Nullable Object>, List<RecordState>> gather(
            ObjectType object, List<Field> fields) {
        var byValues = new HashMap<List<@Nullable Object>, List<RecordState>>();
        for (var record : touched.of(object.name())) {
            if (record.number() < 0) {
                var values = new ArrayList<@Nullable Object>();
                fields.forEach(field -> values.add(record.slots().get(field)));
                byValues.computeIfAbsent(values, _ -> new ArrayList<>()).add(record);
            }
        }
        return byValues;
    }
}
