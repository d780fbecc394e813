package sandpiper.engine.react;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.LogicRecord;
import sandpiper.engine.work.PlainValues;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Rights;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.ValueText;
import sandpiper.model.logic.CompiledFunction;
import sandpiper.model.release.ObjectFunctionType;

/** Runs functions inside a unit of work, for a request or for steps that call them. */
public final class FunctionRun {
    private final StepContext context;
    private final Workspace workspace;
    private final Tracer tracer;

    public FunctionRun(StepContext context, Tracer tracer) {
        this.context = context;
        this.workspace = context.workspace();
        this.tracer = tracer;
    }

    /**
     * Runs a function.
     *
     * @param on the record it is called on, or {@code null} for one of the object as a whole
     * @param arguments in the order of its parameters
     * @param caller what the caller may do; a function with rights of its own does not ask
     */
    public Object run(
            ObjectFunctionType type,
            @Nullable RecordState on,
            List<Object> arguments,
            Rights caller) {
        return run(
                workspace.logic().of(type.object()).function(type.name()), on, arguments, caller);
    }

    /** The same with a function that need not be released. */
    public Object run(
            CompiledFunction function,
            @Nullable RecordState on,
            List<Object> arguments,
            Rights caller) {
        var type = function.type();
        var code = function.code();
        var frame = code.frame(workspace.evaluation());
        if (on != null) {
            frame.set(NameContext.THIS, on.logic(workspace));
        }
        for (int i = 0; i < arguments.size(); i++) {
            frame.set(NameContext.FIRST_NAME + i, arguments.get(i));
        }
        if (tracer.isOn()) {
            tracer.enter(TraceStep.Kind.CALL, title(type, on), given(type, arguments), "");
        }
        // What follows from what it did, up to storing it, is part of its time.
        workspace.evaluation().startClock();
        var rights = type.definition().ownRights() ? Rights.ALL : caller;
        try {
            var result = code.run(frame, new StepActions(context, tracer, on, rights));
            if (tracer.isOn() && result != Nothing.NULL) {
                tracer.step(TraceStep.Kind.LOCAL, "return", "", ValueText.literal(result));
            }
            return result;
        } finally {
            tracer.leave();
        }
    }

    private String title(ObjectFunctionType type, @Nullable RecordState on) {
        return on == null
                ? type.written()
                : "%s %s: %s".formatted(on.object().label(), on.keyText(), type.name());
    }

    private static String given(ObjectFunctionType type, List<Object> arguments) {
        var words = new ArrayList<String>();
        for (int i = 0; i < arguments.size(); i++) {
            words.add(
                    type.parameters().get(i).name() + " = " + ValueText.literal(arguments.get(i)));
        }
        return String.join(", ", words);
    }

    /** What a function gave back in the form a caller reads; {@code null} when it gives nothing. */
    public Outcome.@Nullable Result result(ObjectFunctionType type, Object given) {
        var returns = type.definition().returns();
        if (returns == null) {
            return null;
        }
        var plain = new PlainValues(type.object().zone(), type.object().rounding());
        var value = plain.of(returns, given);
        plain.problems()
                .forEach(message ->
                        context.faults()
                                .refuse(
                                        new Fault(
                                                FaultPath.WHOLE,
                                                RecordCode.CANNOT_BE_STORED,
                                                "What %s returns %s."
                                                        .formatted(type.name(), message))));
        return new Outcome.Result(type.name(), value);
    }

    /** The state behind a record of the language, or {@code null} for what is no whole record. */
    static @Nullable RecordState stateOf(@Nullable RecordValue record) {
        return record instanceof LogicRecord of ? of.state() : null;
    }
}
