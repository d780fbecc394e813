package sandpiper.engine.write;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.react.Surroundings;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.Origin;

/**
 * Requests on their way through one unit of work: what is asked is put in, everything is worked
 * out, looked at, and stored. The one place that says so, for a request alone and for many at once.
 * For one thread, once.
 */
final class Execution {
    private final UnitOfWork unit;
    private final List<CommandRun> commands;

    /** {@code requests} are not empty; they come from one sender in one way. */
    Execution(
            LiveRelease live,
            Transaction transaction,
            List<Request> requests,
            Surroundings sinks,
            Instant now,
            Tracer tracer) {
        this.unit =
                new UnitOfWork(
                        live, transaction, Origin.of(requests.getFirst()), sinks, now, tracer);
        this.commands =
                requests.stream().map(request -> new CommandRun(live, request, unit)).toList();
        unit.workspace().evaluation().startClock();
    }

    /**
     * Carries out a request that is alone.
     *
     * @return refused with nothing of it to be kept, or done
     */
    Outcome alone() {
        var command = commands.getFirst();
        var early = command.prepared();
        if (early != null) {
            return early;
        }
        unit.work();
        var refused = unit.faults().refusal();
        if (refused != null) {
            return command.told(refused);
        }
        var beyond = command.beyond();
        if (beyond != null) {
            return beyond;
        }
        var tooMuch = unit.stored();
        return tooMuch != null ? tooMuch : command.done();
    }

    /**
     * Carries out all requests as one piece of work.
     *
     * @return an outcome for each; when any is a refusal or {@code null}, nothing is to be kept,
     *     and those that are {@code null} were not at fault
     */
    List<@Nullable Outcome> together() {
        var outcomes = new ArrayList<@Nullable Outcome>();
        commands.forEach(command -> outcomes.add(command.prepared()));
        if (outcomes.stream().anyMatch(Objects::nonNull)) {
            return outcomes;
        }
        unit.work();
        for (int i = 0; i < commands.size(); i++) {
            outcomes.set(
                    i,
                    unit.faults().isStopped() ? fault(commands.get(i)) : commands.get(i).beyond());
        }
        if (!unit.faults().isStopped()
                && outcomes.stream().allMatch(Objects::isNull)
                && unit.stored() == null) {
            for (int i = 0; i < commands.size(); i++) {
                outcomes.set(i, commands.get(i).done());
            }
        }
        return outcomes;
    }

    /** What is said to a request about its own record, else {@code null}. */
    private Outcome.@Nullable Refused fault(CommandRun command) {
        var about = command.about();
        var faults = about == null ? unit.faults().all() : unit.faults().of(about);
        return faults.isEmpty() ? null : command.told(FaultLog.refusal(faults));
    }
}
