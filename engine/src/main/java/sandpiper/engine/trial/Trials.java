package sandpiper.engine.trial;

import java.time.Clock;
import java.time.Duration;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.react.Surroundings;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.Origin;
import sandpiper.engine.write.CommandRun;
import sandpiper.engine.write.UnitOfWork;
import sandpiper.model.logic.CompiledFunction;

/** Does what a request asks in a unit of work that is thrown away, and lets somebody look at it. */
public final class Trials {
    /** A designer's trial runs where others write, so it has less time. */
    private static final Duration LONGEST = Duration.ofSeconds(1);

    private final Surroundings sinks;
    private final Clock clock;

    public Trials(Surroundings sinks, Clock clock) {
        this.sinks = sinks;
        this.clock = clock;
    }

    /**
     * Puts in what a request asks, and lets somebody look at it; the caller undoes all of it.
     *
     * @param function is called in the place of the released one, unless it is {@code null}
     */
    public <T> T tried(
            LiveRelease live,
            Transaction transaction,
            Request request,
            Tracer tracer,
            @Nullable CompiledFunction function,
            Function<Trial, T> reader) {
        var unit =
                new UnitOfWork(
                        live,
                        transaction,
                        Origin.of(request).asTrial(),
                        sinks,
                        clock.instant(),
                        tracer);
        unit.workspace().evaluation().startClock(LONGEST);
        var command = new CommandRun(live, request, unit, function);
        return reader.apply(new Trial(unit, tracer, command, command.prepared()));
    }
}
