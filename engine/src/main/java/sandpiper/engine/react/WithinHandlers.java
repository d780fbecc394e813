package sandpiper.engine.react;

import java.util.LinkedHashMap;
import java.util.List;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Moment;
import sandpiper.model.logic.CompiledHandler;

/** Runs the handlers that are part of the change that raised their event. */
public final class WithinHandlers {
    private final StepContext context;
    private final Workspace workspace;
    private final Tracer tracer;
    private int seen;

    public WithinHandlers(StepContext context, Tracer tracer) {
        this.context = context;
        this.workspace = context.workspace();
        this.tracer = tracer;
    }

    /** Runs them for what was raised since the last time; tells whether any did something. */
    public boolean run() {
        boolean ran = false;
        var raised = context.raised().all();
        while (seen < raised.size() && !context.faults().isStopped()) {
            var one = raised.get(seen++);
            for (var handler : workspace.logic().handlersOf(one.type().name())) {
                if (handler.definition().within() && !context.faults().isStopped()) {
                    ran |= run(handler, one);
                }
            }
        }
        return ran;
    }

    private boolean run(CompiledHandler handler, RaisedEvents.One raised) {
        var told = new LinkedHashMap<>(raised.values());
        told.put("type", raised.type().name());
        told.put("by", workspace.by());
        told.put("at", Moment.of(workspace.now(), handler.object().zone()));
        var event = new Context(told);
        Object name = handler.definition().batch() ? List.of(event) : event;
        var record = handler.aboutRecord() ? raised.about() : null;
        return new HandlerRun(context).run(handler, record, name, TraceStep.Kind.RULE, tracer);
    }
}
