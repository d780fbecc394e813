package sandpiper.engine.react;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Workspace;
import sandpiper.engine.writer.WriteMetrics;
import sandpiper.logic.check.NameContext;
import sandpiper.model.definition.Trigger;
import sandpiper.model.logic.CompiledRule;

/**
 * Lets rules react to changes, each once for what changed since it last looked, until nothing sets
 * one off any more. Rules that keep setting each other off are stopped and named.
 */
public final class RuleRunner {
    /** Times a rule may run for one record in one request; honest rules need one or two. */
    private static final int MOST_RUNS = 10;

    private final StepContext steps;
    private final Workspace workspace;
    private final FaultLog faults;
    private final Tracer tracer;
    private final WriteMetrics metrics;
    private final Map<RecordState, Map<String, Mark>> marks = new HashMap<>();

    /** How far a rule has seen a record's changes, and how often it ran. */
    private static final class Mark {
        private int stamp;
        private int partStamp;
        private boolean looked;
        private boolean setOff;
        private int runs;

        /** What it saw in each field it waits for when it last looked. */
        private @Nullable Object[] saw = {};
    }

    public RuleRunner(StepContext steps, Tracer tracer, WriteMetrics metrics) {
        this.steps = steps;
        this.workspace = steps.workspace();
        this.faults = steps.faults();
        this.metrics = metrics;
        this.tracer = tracer;
    }

    /** Runs every rule that something set off; tells whether any did something. */
    public boolean run() {
        boolean ran = false;
        for (var record : workspace.touched().now()) {
            for (var rule : workspace.logic().of(record.object()).rules()) {
                if (faults.isStopped()) {
                    return false;
                }
                ran |= consider(record, rule);
            }
        }
        return ran;
    }

    /** Tells which rules of the records that were touched nothing set off, and what would have. */
    public void tellIdle() {
        for (var record : workspace.touched().now()) {
            for (var rule : workspace.logic().of(record.object()).rules()) {
                var ofRecord = marks.get(record);
                var mark = ofRecord == null ? null : ofRecord.get(rule.definition().name());
                if (mark == null || !mark.setOff) {
                    tracer.step(
                            TraceStep.Kind.RULE,
                            title(record, rule),
                            "Only this sets it off: " + rule.definition().on().written(),
                            "not set off");
                }
            }
        }
    }

    private boolean consider(RecordState record, CompiledRule rule) {
        var mark =
                marks.computeIfAbsent(record, _ -> new LinkedHashMap<>())
                        .computeIfAbsent(rule.definition().name(), _ -> new Mark());
        boolean setOff = isSetOff(record, rule.definition().on(), mark);
        mark.saw = values(record, rule.definition().on());
        mark.stamp = record.slots().stamp();
        mark.partStamp = record.partStamp();
        mark.looked = true;
        mark.setOff |= setOff;
        if (!setOff) {
            return false;
        }
        long start = System.nanoTime();
        try {
            return react(record, rule, mark);
        } finally {
            metrics.ruleRan(
                    record.object().name() + "." + rule.definition().name(),
                    System.nanoTime() - start);
        }
    }

    private boolean react(RecordState record, CompiledRule rule, Mark mark) {
        var when = rule.when();
        if (when != null) {
            var frame = workspace.frame(when, record);
            workspace.addChange(frame, record);
            var holds = when.run(frame);
            if (tracer.isOn()) {
                tracer.step(
                        TraceStep.Kind.RULE,
                        title(record, rule),
                        "when " + rule.definition().when(),
                        String.valueOf(holds));
                tracer.names(when.names(frame));
            }
            if (holds != Boolean.TRUE) {
                return false;
            }
        } else if (tracer.isOn()) {
            tracer.step(TraceStep.Kind.RULE, title(record, rule), "always", "true");
        }
        if (++mark.runs > MOST_RUNS) {
            faults.refuse(loop(record));
            return false;
        }
        runSteps(record, rule);
        return true;
    }

    private void runSteps(RecordState record, CompiledRule rule) {
        var frame = rule.then().frame(workspace.evaluation());
        frame.set(NameContext.THIS, record.logic(workspace));
        workspace.addChange(frame, record);
        tracer.enter(TraceStep.Kind.NOTE, "then", "", "");
        try {
            rule.then().run(frame, new StepActions(steps, tracer, record));
        } finally {
            tracer.leave();
        }
    }

    private String title(RecordState record, CompiledRule rule) {
        return "%s %s: %s (on %s)"
                .formatted(
                        record.object().label(),
                        record.keyText(),
                        rule.definition().name(),
                        rule.definition().on().written());
    }

    private static boolean isSetOff(RecordState record, Trigger on, Mark mark) {
        boolean fresh = !mark.looked;
        if (on.create() && record.isNew() && fresh) {
            return true;
        }
        if (on.retire() && record.isRetirementChanged() && record.isRetired() && fresh) {
            return true;
        }
        boolean moved =
                record.slots().stamp() > mark.stamp
                        || record.partStamp() > mark.partStamp
                        || (fresh && record.isRetirementChanged());
        // What came back to its first value is a change to a rule that saw the other one.
        boolean differs = record.isChangedByHand() || mark.runs > 0;
        if (on.change() && !record.isNew() && moved && differs) {
            return true;
        }
        for (int i = 0; i < on.fields().size(); i++) {
            var name = on.fields().get(i);
            var field = record.object().fields().find(name);
            if (field.isPresent()) {
                var known = mark.looked ? mark.saw[i] : record.slots().before(field.get());
                if (!Objects.equals(known, record.slots().get(field.get()))) {
                    return true;
                }
            } else {
                var part = record.object().part(name).orElseThrow();
                if (record.partStamp(part) > mark.partStamp) {
                    return true;
                }
            }
        }
        return false;
    }

    /** The values a rule waits for; nothing in the places of parts. */
    private static @Nullable Object[] values(RecordState record, Trigger on) {
        var values = new @Nullable Object[on.fields().size()];
        for (int i = 0; i < values.length; i++) {
            int at = i;
            record.object()
                    .fields()
                    .find(on.fields().get(i))
                    .ifPresent(field -> values[at] = record.slots().get(field));
        }
        return values;
    }

    /** Names the rules that go round. */
    private Fault loop(RecordState record) {
        Set<String> names = new LinkedHashSet<>();
        var ofRecord = Objects.requireNonNull(marks.get(record));
        var sorted = new ArrayList<>(ofRecord.entrySet());
        sorted.removeIf(entry -> entry.getValue().runs < MOST_RUNS - 1);
        sorted.forEach(entry -> names.add(entry.getKey()));
        var list = String.join(", ", names);
        return new Fault(
                FaultPath.WHOLE,
                RecordCode.RULE_LOOP,
                names.size() == 1
                        ? "The rule %s of %s keeps setting itself off; it was stopped after %d times."
                                .formatted(list, record.object().label(), MOST_RUNS)
                        : "The rules %s of %s keep setting each other off; they were stopped after %d times."
                                .formatted(list, record.object().label(), MOST_RUNS));
    }
}
