package sandpiper.engine.write;

import java.time.Clock;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.trace.Trace;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.WorkIds;

/** Makes the account of a request out of the steps that were taken down. */
final class RequestTraces {
    private final Clock clock;

    RequestTraces(Clock clock) {
        this.clock = clock;
    }

    /** Begins the account of a request. */
    static Tracer begin(Request request) {
        var tracer = Tracer.on();
        tracer.enter(TraceStep.Kind.REQUEST, what(request.command()), request.via(), "");
        return tracer;
    }

    /** What came of a request, with its account. */
    Outcome end(Request request, Outcome outcome, Tracer tracer) {
        tracer.leave();
        return switch (outcome) {
            case Outcome.Success done -> {
                tracer.step(
                        TraceStep.Kind.STORED,
                        "Stored",
                        "",
                        done instanceof Outcome.Done record
                                ? "version %d".formatted(record.version())
                                : "");
                yield done.with(trace(request, "done", tracer));
            }
            case Outcome.Refused refused -> {
                tell(refused, tracer);
                yield new Outcome.Refused(
                        refused.reason(), refused.faults(), trace(request, "refused", tracer));
            }
            case Outcome.Repeated repeated -> repeated;
        };
    }

    /** A refusal whose account has the end alone, since the rest would take too long again. */
    Outcome shortly(Request request, Outcome.Refused refused) {
        var tracer = begin(request);
        tracer.step(
                TraceStep.Kind.NOTE,
                "This took too long to be done again for its steps; ask for them with"
                        + " Sandpiper-Trace: on.",
                "",
                "");
        return end(request, refused, tracer);
    }

    private static void tell(Outcome.Refused refused, Tracer tracer) {
        refused.faults()
                .forEach(fault ->
                        tracer.step(
                                TraceStep.Kind.REFUSED,
                                fault.message(),
                                fault.path().toString(),
                                fault.code().id()));
    }

    private Trace trace(Request request, String outcome, Tracer tracer) {
        return new Trace(
                WorkIds.next(),
                clock.instant(),
                request.actor().name(),
                request.via(),
                what(request.command()),
                outcome,
                tracer.steps());
    }

    private static String what(RecordCommand command) {
        var object = command.object().name();
        return switch (command) {
            case RecordCommand.Create _ -> "create " + object;
            case RecordCommand.Change change -> "change %s %s".formatted(object, change.key());
            case RecordCommand.Save save ->
                    "save " + object + (save.key() == null ? "" : " " + save.key());
            case RecordCommand.Transit transit ->
                    "%s %s %s".formatted(transit.transition(), object, transit.key());
            case RecordCommand.Call call ->
                    call.key() == null
                            ? "%s.%s".formatted(object, call.function())
                            : "%s %s %s".formatted(call.function(), object, call.key());
            case RecordCommand.Remove remove -> "remove %s %s".formatted(object, remove.key());
            case RecordCommand.Restore restore -> "restore %s %s".formatted(object, restore.key());
        };
    }
}
