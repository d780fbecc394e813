package sandpiper.engine.trial;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.CallTrial;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.port.HistoryStorage.ValueChange;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.Flush;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.write.UnitOfWork;
import sandpiper.model.release.Field;

/** Tells what a function did in a unit of work that is thrown away. */
final class CallTrials {
    private final UnitOfWork unit;

    CallTrials(UnitOfWork unit) {
        this.unit = unit;
    }

    CallTrial of(Outcome.@Nullable Result result, Tracer tracer) {
        boolean stopped = unit.faults().isStopped();
        if (!stopped) {
            // References are told by their keys, which are looked up in the tables.
            unit.workspace().settle();
        }
        return new CallTrial(
                stopped ? null : result,
                unit.faults().all(),
                unit.faults().warnings(),
                stopped ? List.of() : differences(),
                unit.raised().all().stream()
                        .map(one -> new CallTrial.RaisedEvent(one.type().name(), one.data()))
                        .toList(),
                unit.workspace().evaluation().notes(),
                List.copyOf(tracer.steps()));
    }

    private List<CallTrial.Difference> differences() {
        var differences = new ArrayList<CallTrial.Difference>();
        for (var record : unit.workspace().touched().all()) {
            if (record.isChanged()) {
                var changes = new ArrayList<>(unit.flush().changes(record));
                changes.addAll(derived(record));
                differences.add(
                        new CallTrial.Difference(
                                record.object().name(),
                                record.keyText(),
                                Flush.operation(record),
                                changes));
            }
        }
        return differences;
    }

    /** History leaves out what formulas work out; who tries something wants to see it. */
    private static List<ValueChange> derived(RecordState record) {
        var changes = new ArrayList<ValueChange>();
        for (var field : record.slots().changed()) {
            if (field.isDerived() && !field.isReference()) {
                changes.add(
                        new ValueChange(
                                field.name(),
                                text(field, record.slots().before(field)),
                                text(field, record.slots().get(field))));
            }
        }
        return changes;
    }

    private static @Nullable String text(Field field, @Nullable Object value) {
        return value == null ? null : field.type().writeText(value);
    }
}
