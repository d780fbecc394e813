package sandpiper.engine.input;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.derive.Fills;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.Origin;
import sandpiper.engine.work.Reach;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.Slots;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.Quoted;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;

/** References that a request gives by the keys of records, those of the same request among them. */
final class Links {
    private final Workspace workspace;
    private final FaultLog faults;
    private final Reach reach;
    private final Fills fills;
    private final boolean textual;
    private final boolean whole;
    private final Map<String, Long> linked = new HashMap<>();
    private final List<Later> later = new ArrayList<>();

    Links(Workspace workspace, FaultLog faults, Reach reach, Fills fills, Origin origin) {
        this.workspace = workspace;
        this.faults = faults;
        this.reach = reach;
        this.fills = fills;
        this.textual = origin.textual();
        this.whole = origin.whole();
    }

    /** Says which records will be looked for. */
    void expect(RecordInput input) {
        var keys = new LinkedHashMap<ObjectType, Set<String>>();
        expect(input.values(), keys);
        input.parts().values().forEach(items -> items.forEach(item -> expect(item.values(), keys)));
        workspace.expect(keys);
    }

    private void expect(Map<Field, InputValue> values, Map<ObjectType, Set<String>> keys) {
        values.forEach((field, given) -> {
            if (given instanceof InputValue.Target(var key)) {
                keys.computeIfAbsent(workspace.release().target(field), _ -> new LinkedHashSet<>())
                        .add(key);
            }
        });
    }

    /** Sets a reference by the key of its record, or remembers it until all are there. */
    void set(Row row, Field field, String key, FaultPath at) {
        var slots = row.slots();
        var target = workspace.release().target(field);
        var known = linked.get(target.name() + '\0' + key);
        if (known != null) {
            slots.set(field, known);
            return;
        }
        var found = workspace.find(target, key);
        if (found.isEmpty() && textual) {
            // Rows of a file may refer to others of it, whichever comes first.
            later.add(new Later(row, field, target, key, at));
        } else if (found.isEmpty() || !mayLink(slots, field, target, found.get().number())) {
            unknown(row, field, target, key, at);
        } else if (found.get().retired()
                && !(whole && textual)
                && !Long.valueOf(found.get().number()).equals(slots.before(field))) {
            fault(
                    row,
                    at,
                    field,
                    RecordCode.RETIRED_RECORD,
                    "%s: %s %s is retired and cannot be chosen."
                            .formatted(field.label(), target.label(), Quoted.of(key)));
        } else {
            linked.put(target.name() + '\0' + key, found.get().number());
            slots.set(field, found.get().number());
        }
    }

    /** What stood there may stay; otherwise what is not there for the caller is not there here. */
    private boolean mayLink(Slots slots, Field field, ObjectType target, long number) {
        return Long.valueOf(number).equals(slots.before(field)) || reach.includes(target, number);
    }

    private void unknown(Row row, Field field, ObjectType target, String key, FaultPath at) {
        fault(
                row,
                at,
                field,
                RecordCode.UNKNOWN_RECORD,
                "%s: there is no %s %s.".formatted(field.label(), target.label(), Quoted.of(key)));
    }

    /** A reference whose record may be among those that are made in the same work. */
    private record Later(Row row, Field field, ObjectType target, String key, FaultPath at) {}

    /** Ties references to records that this work makes; what is in none of them is told. */
    void tie() {
        if (later.isEmpty()) {
            return;
        }
        var made = new HashMap<String, RecordState>();
        for (var record : workspace.touched().all()) {
            if (record.isNew()) {
                made.put(record.object().name() + '\0' + record.keyText(), record);
            }
        }
        for (var one : List.copyOf(later)) {
            var found = made.get(one.target().name() + '\0' + one.key());
            if (found == null) {
                unknown(one.row(), one.field(), one.target(), one.key(), one.at());
            }
        }
        for (var one : List.copyOf(later)) {
            var found = made.get(one.target().name() + '\0' + one.key());
            if (found != null && !faults.isStopped()) {
                one.row().slots().set(one.field(), workspace.numberOf(found));
            }
        }
        if (!faults.isStopped()) {
            fillLater();
        }
        later.clear();
    }

    /**
     * What one record gives another may come from a third, so all are asked until none has more.
     */
    private void fillLater() {
        boolean more = true;
        while (more) {
            more = false;
            for (var one : later) {
                more |= fills.fillEmpty(one.row());
            }
        }
    }

    private void fault(Row row, FaultPath at, Field field, RecordCode code, String message) {
        faults.add(row.record(), new Fault(at.then(field.name()), code, message));
    }
}
