package sandpiper.engine.work;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;

/**
 * What is found to be wrong in a unit of work, and what is only worth a warning. Each fault knows
 * the record it is about; about another record than those that were asked for it says which.
 */
public final class FaultLog {
    private final Set<RecordState> primaries = new LinkedHashSet<>();
    private final List<Entry> entries = new ArrayList<>();
    private final List<Fault> warnings = new ArrayList<>();

    /** A fault with the record it is about, {@code null} for the request as a whole. */
    private record Entry(@Nullable RecordState record, Fault fault) {}

    /** Makes a record one that was asked for: faults about it need not say which it is. */
    public void primary(RecordState record) {
        primaries.add(record);
    }

    /** The records that were asked for. */
    public Set<RecordState> primaries() {
        return primaries;
    }

    public boolean isPrimary(RecordState record) {
        return primaries.contains(record);
    }

    /** Takes a fault that is about the request as a whole. */
    public void refuse(Fault fault) {
        entries.add(new Entry(primaries.isEmpty() ? null : primaries.iterator().next(), fault));
    }

    /** Takes a fault about a record. */
    public void add(RecordState record, Fault fault) {
        entries.add(new Entry(record, placed(record, fault)));
    }

    /** Takes a warning, once. */
    public void warn(Fault warning) {
        if (!warnings.contains(warning)) {
            warnings.add(warning);
        }
    }

    /** A fault about a field of some record, which is not taken. */
    public Fault about(RecordState record, List<String> at, RecordCode code, String message) {
        return placed(record, new Fault(FaultPath.of(at), code, message));
    }

    /** A fault as it is told about a record: about another than those asked for, it names it. */
    public Fault placed(RecordState record, Fault fault) {
        if (isPrimary(record)) {
            return fault;
        }
        return new Fault(
                FaultPath.WHOLE,
                fault.code(),
                "%s %s: %s".formatted(record.object().label(), record.keyText(), fault.message()));
    }

    /** Whether something is wrong at a place of a record already. */
    public boolean isFaulty(RecordState record, FaultPath path) {
        return entries.stream()
                .anyMatch(one -> one.record() == record && one.fault().path().equals(path));
    }

    /** Whether anything is wrong, so that the work cannot end well. */
    public boolean isStopped() {
        return !entries.isEmpty();
    }

    /** All faults, each once, as they were found. */
    public List<Fault> all() {
        return entries.stream().map(Entry::fault).distinct().toList();
    }

    /** Faults about one of the records that were asked for. */
    public List<Fault> of(RecordState record) {
        return entries.stream()
                .filter(one -> one.record() == record)
                .map(Entry::fault)
                .distinct()
                .toList();
    }

    public List<Fault> warnings() {
        return warnings;
    }

    /** The refusal that the faults make, or {@code null} when there are none. */
    public Outcome.@Nullable Refused refusal() {
        return entries.isEmpty() ? null : refusal(all());
    }

    /**
     * A refusal for some faults: a conflict when each is about what others have or did, unavailable
     * when each is about a service outside.
     */
    public static Outcome.Refused refusal(List<Fault> faults) {
        boolean taken =
                faults.stream()
                        .allMatch(fault ->
                                fault.code() == RecordCode.DUPLICATE_KEY
                                        || fault.code() == RecordCode.NOT_UNIQUE
                                        || fault.code() == RecordCode.WRONG_STATE);
        boolean unavailable =
                faults.stream().allMatch(fault -> fault.code() == RecordCode.OUTSIDE_FAILED);
        return new Outcome.Refused(
                taken
                        ? Outcome.Reason.CONFLICT
                        : unavailable ? Outcome.Reason.UNAVAILABLE : Outcome.Reason.INVALID,
                faults);
    }
}
