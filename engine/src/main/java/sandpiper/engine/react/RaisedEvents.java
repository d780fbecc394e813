package sandpiper.engine.react;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.PlainValues;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.Quoted;
import sandpiper.logic.run.BudgetException;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.ValueText;
import sandpiper.model.definition.Rounding;
import sandpiper.model.release.EventType;

/** The events a unit of work has raised so far, in their order. */
public final class RaisedEvents {
    /** Events of one request. */
    private static final int MOST_EVENTS = 10_000;

    private final Workspace workspace;
    private final FaultLog faults;
    private final Tracer tracer;
    private final List<One> all = new ArrayList<>();

    /**
     * An event before it is stored.
     *
     * @param values as logic told them
     * @param about the record, or {@code null}
     * @param data in plain form
     */
    public record One(
            EventType type,
            Map<String, Object> values,
            @Nullable RecordState about,
            Map<String, @Nullable Object> data) {}

    public RaisedEvents(Workspace workspace, FaultLog faults, Tracer tracer) {
        this.workspace = workspace;
        this.faults = faults;
        this.tracer = tracer;
    }

    public List<One> all() {
        return all;
    }

    /** Raises an event that steps emit. */
    void raise(EventType type, Map<String, Object> values, @Nullable RecordState about) {
        if (all.size() == MOST_EVENTS) {
            throw new BudgetException(
                    "This raises more than %,d events and was stopped.".formatted(MOST_EVENTS));
        }
        var plain =
                new PlainValues(
                        workspace.evaluation().zone(),
                        about == null ? Rounding.HALF_UP : about.object().rounding());
        var data = new LinkedHashMap<String, @Nullable Object>();
        for (var field : type.fields().entries()) {
            var value = values.getOrDefault(field.name(), Nothing.NULL);
            if (value == Nothing.NULL && field.required()) {
                refuse(
                        "%s cannot be raised without %s, which is empty."
                                .formatted(type.name(), field.name()));
            }
            data.put(field.name(), plain.of(field.type(), value));
        }
        plain.problems()
                .forEach(message ->
                        refuse("What %s tells %s.".formatted(Quoted.of(type.name()), message)));
        all.add(new One(type, values, about, data));
        if (tracer.isOn()) {
            tracer.step(
                    TraceStep.Kind.EVENT,
                    type.name(),
                    about == null ? "" : about.object().label() + " " + about.keyText(),
                    ValueText.literal(new sandpiper.logic.value.Context(values)));
        }
    }

    private void refuse(String message) {
        faults.refuse(new Fault(FaultPath.WHOLE, RecordCode.CANNOT_BE_STORED, message));
    }
}
