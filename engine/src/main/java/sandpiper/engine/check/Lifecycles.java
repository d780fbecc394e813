package sandpiper.engine.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.definition.Lifecycle;

/** Takes records from state to state. */
public final class Lifecycles {
    private final Workspace workspace;
    private final FaultLog faults;
    private final Tracer tracer;
    private final Map<RecordState, List<String>> taken = new HashMap<>();
    private final Set<RecordState> entered = new HashSet<>();

    public Lifecycles(Workspace workspace, FaultLog faults, Tracer tracer) {
        this.workspace = workspace;
        this.faults = faults;
        this.tracer = tracer;
    }

    /** Takes a transition, or says why it cannot be taken. Its checks are made at the end. */
    public void take(RecordState record, String name) {
        var lifecycle = record.object().lifecycle();
        var transition = lifecycle == null ? null : lifecycle.find(name).orElse(null);
        if (lifecycle == null || transition == null) {
            faults.refuse(
                    faults.about(
                            record,
                            List.of(),
                            RecordCode.NO_SUCH_TRANSITION,
                            unknown(record, name)));
            return;
        }
        var field = record.object().fields().get(lifecycle.field());
        var state = String.valueOf(record.slots().get(field));
        if (!transition.from().contains(state)) {
            faults.refuse(
                    faults.about(
                            record,
                            List.of(),
                            RecordCode.WRONG_STATE,
                            "%s is possible only when the %s is %s; it is %s."
                                    .formatted(
                                            transition.label(),
                                            record.object().label(),
                                            String.join(" or ", transition.from()),
                                            state)));
            return;
        }
        record.slots().set(field, transition.to());
        taken.computeIfAbsent(record, _ -> new ArrayList<>()).add(name);
        workspace.touch(record);
        tracer.step(TraceStep.Kind.TRANSITION, name, "", state + " → " + transition.to());
    }

    private static String unknown(RecordState record, String name) {
        var lifecycle = record.object().lifecycle();
        if (lifecycle == null) {
            return "%s has no lifecycle.".formatted(record.object().label());
        }
        var names = lifecycle.transitions().stream().map(Lifecycle.Transition::name).toList();
        return "%s has no transition %s; %s"
                .formatted(
                        record.object().label(),
                        Quoted.of(name),
                        Nearest.to(name, names)
                                .map(near -> "did you mean \"" + near + "\"?")
                                .orElse("it has " + String.join(", ", names) + "."));
    }

    /** Notes that a new record comes with a state, into which it took no transition. */
    public void enter(RecordState record) {
        entered.add(record);
    }

    /**
     * The transitions whose checks must hold of a record: those it took, or any that leads into the
     * state it came with.
     */
    List<String> into(RecordState record) {
        var lifecycle = record.object().lifecycle();
        if (lifecycle == null || !entered.contains(record)) {
            return taken(record);
        }
        var state =
                String.valueOf(record.slots().get(record.object().fields().get(lifecycle.field())));
        var names = new ArrayList<>(taken(record));
        lifecycle.transitions().stream()
                .filter(one -> one.to().equals(state))
                .forEach(one -> names.add(one.name()));
        return names;
    }

    /** The transitions a record took in this work. */
    public List<String> taken(RecordState record) {
        return taken.getOrDefault(record, List.of());
    }
}
