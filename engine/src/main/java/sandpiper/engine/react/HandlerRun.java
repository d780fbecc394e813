package sandpiper.engine.react;

import org.jspecify.annotations.Nullable;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.run.Frame;
import sandpiper.logic.run.StepCode;
import sandpiper.model.logic.CompiledHandler;
import sandpiper.model.logic.CompiledSchedule;

/** Runs the steps of handlers and schedules inside a unit of work. */
public final class HandlerRun {
    private final StepContext context;
    private final Workspace workspace;

    public HandlerRun(StepContext context) {
        this.context = context;
        this.workspace = context.workspace();
    }

    /**
     * Runs a handler when its condition holds; tells whether it did.
     *
     * @param record that the event is about, or {@code null}
     * @param heard the event, or the list of them
     */
    public boolean run(
            CompiledHandler handler,
            @Nullable RecordState record,
            Object heard,
            TraceStep.Kind kind,
            Tracer tracer) {
        var when = handler.when();
        if (when != null) {
            var frame = when.frame(workspace.evaluation());
            fill(frame, record, heard);
            var holds = when.run(frame);
            tracer.step(
                    kind,
                    handler.name(),
                    "when " + handler.definition().when(),
                    String.valueOf(holds));
            if (holds != Boolean.TRUE) {
                return false;
            }
        } else {
            tracer.step(kind, handler.name(), "always", "true");
        }
        var frame = handler.then().frame(workspace.evaluation());
        fill(frame, record, heard);
        tracer.enter(TraceStep.Kind.NOTE, "then", "", "");
        try {
            run(handler.then(), frame, new StepActions(context, tracer, record));
        } finally {
            tracer.leave();
        }
        return true;
    }

    private void fill(Frame frame, @Nullable RecordState record, Object heard) {
        if (record != null) {
            frame.set(NameContext.THIS, record.logic(workspace));
        }
        frame.set(NameContext.FIRST_NAME, heard);
    }

    /** Runs a schedule for a record. */
    public void run(CompiledSchedule schedule, RecordState record, Tracer tracer) {
        var frame = schedule.then().frame(workspace.evaluation());
        frame.set(NameContext.THIS, record.logic(workspace));
        run(schedule.then(), frame, new StepActions(context, tracer, record));
    }

    private void run(StepCode steps, Frame frame, StepActions actions) {
        workspace.evaluation().startClock();
        steps.run(frame, actions);
    }
}
