package sandpiper.engine.write;

import java.util.LinkedHashMap;
import java.util.List;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Moment;
import sandpiper.model.logic.CompiledHandler;

/** Runs the handlers that are part of the change that raised their event. */
final class WithinHandlers {
    private final UnitOfWork unit;
    private final Workspace workspace;
    private final Tracer tracer;
    private int seen;

    WithinHandlers(UnitOfWork unit, Workspace workspace, Tracer tracer) {
        this.unit = unit;
        this.workspace = workspace;
        this.tracer = tracer;
    }

    /** Runs them for what was raised since the last time; tells whether any did something. */
    boolean run() {
        boolean ran = false;
        var raised = unit.raised().all();
        while (seen < raised.size() && !unit.isStopped()) {
            var one = raised.get(seen++);
            for (var handler : workspace.logic().handlersOf(one.type().name())) {
                if (handler.definition().within() && !unit.isStopped()) {
                    ran |= run(handler, one);
                }
            }
        }
        return ran;
    }

    private boolean run(CompiledHandler handler, Raised.One raised) {
        var told = new LinkedHashMap<>(raised.values());
        told.put("type", raised.type().name());
        told.put("by", workspace.by());
        told.put("at", Moment.of(workspace.now(), handler.object().zone()));
        var event = new Context(told);
        Object name = handler.definition().batch() ? List.of(event) : event;
        var record = handler.aboutRecord() ? raised.about() : null;
        return unit.handlers().run(handler, record, name, TraceStep.Kind.RULE, tracer);
    }
}
