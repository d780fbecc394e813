package sandpiper.engine.input;

import java.util.List;
import java.util.Map;
import sandpiper.engine.derive.Fills;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.NumberSeries;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Workspace;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.release.Field;
import sandpiper.model.release.Part;

/**
 * The first phase of a unit of work: what was asked for, and what follows from it at once. Given
 * values first, then defaults, what chosen records give, and a number.
 */
public final class InputPhase {
    private final Workspace workspace;
    private final FaultLog faults;
    private final InputApplier applier;
    private final Defaults defaults;
    private final Fills fills;
    private final NumberSeries numbers;
    private final Tracer tracer;

    public InputPhase(
            Workspace workspace,
            FaultLog faults,
            InputApplier applier,
            Defaults defaults,
            Fills fills,
            NumberSeries numbers,
            Tracer tracer) {
        this.workspace = workspace;
        this.faults = faults;
        this.applier = applier;
        this.defaults = defaults;
        this.fills = fills;
        this.numbers = numbers;
        this.tracer = tracer;
    }

    /** Puts what a request says into a record, with everything that follows from it at once. */
    public void apply(RecordState record, RecordInput input) {
        applier.apply(record, input);
        if (record.isNew()) {
            defaults.fill(record, input.values());
        }
        input.parts().forEach((part, items) -> fillNewItems(record, part, items));
        fills.fill(record, given(input.values()));
        input.parts()
                .forEach((part, items) -> {
                    var states = record.items(part);
                    for (int i = 0; i < states.size() && i < items.size(); i++) {
                        fills.fill(states.get(i), given(items.get(i).values()));
                    }
                });
        if (record.isNew() && !faults.isStopped()) {
            numbers.number(record);
        }
        tell(record);
    }

    private void fillNewItems(RecordState record, Part part, List<RecordInput.Item> items) {
        var states = record.items(part);
        for (int i = 0; i < states.size() && i < items.size(); i++) {
            if (states.get(i).slots().isNew()) {
                defaults.fill(states.get(i), items.get(i).values());
            }
        }
    }

    private void tell(RecordState record) {
        if (tracer.isOn()) {
            for (var field : record.slots().changed()) {
                tracer.step(
                        TraceStep.Kind.INPUT,
                        field.name(),
                        "",
                        String.valueOf(record.logic(workspace).read(field.name())));
            }
        }
    }

    /** Fields that were given a value; one that was left empty may still be filled. */
    private static List<String> given(Map<Field, InputValue> values) {
        return values.entrySet().stream()
                .filter(one -> !(one.getValue() instanceof InputValue.Empty))
                .map(one -> one.getKey().name())
                .toList();
    }

    /** Gives a new record what the way it comes in says it has. */
    public void preset(RecordState record, Map<Field, DefaultValue> presets) {
        defaults.preset(record, presets);
    }

    /** Ties references to records that this work makes; what is in none of them is told. */
    public void tie() {
        applier.tie();
    }
}
