package sandpiper.engine.write;

import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.input.ArgumentReader;
import sandpiper.engine.react.FunctionRun;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Rights;
import sandpiper.engine.work.WorkStoppedException;
import sandpiper.logic.run.BudgetException;
import sandpiper.model.logic.CompiledFunction;

/** A call of a function by a command: reads its arguments, runs it, and takes what it gives. */
final class CallRun {
    private final LiveRelease live;
    private final Request request;
    private final UnitOfWork unit;

    CallRun(LiveRelease live, Request request, UnitOfWork unit) {
        this.live = live;
        this.request = request;
        this.unit = unit;
    }

    /**
     * Calls it.
     *
     * @param on the record it is called on, or {@code null} for the object as a whole
     * @return what it gave back; {@code null} for nothing, and when something stopped it, which is
     *     among the faults then
     */
    Outcome.@Nullable Result run(
            RecordCommand.Call call, @Nullable RecordState on, CompiledFunction compiled) {
        var object = call.object();
        var type = compiled.type();
        var reader = new ArgumentReader(unit.workspace(), unit.reach(), object, request.textual());
        var arguments =
                reader.read(
                        type.definition().label(),
                        type.definition().parameters(),
                        call.arguments());
        reader.faults().forEach(fault -> refuse(on, fault));
        if (unit.faults().isStopped()) {
            return null;
        }
        try {
            var functions = new FunctionRun(unit.steps(), unit.tracer());
            var given =
                    functions.run(
                            compiled, on, arguments, Rights.of(live.release(), request.actor()));
            return unit.faults().isStopped() ? null : functions.result(type, given);
        } catch (BudgetException e) {
            refuse(on, new Fault(FaultPath.WHOLE, RecordCode.TOO_MUCH, e.said()));
        } catch (WorkStoppedException _) {
            // what stopped it is among the faults
        }
        return null;
    }

    private void refuse(@Nullable RecordState on, Fault fault) {
        if (on == null) {
            unit.faults().refuse(fault);
        } else {
            unit.faults().add(on, fault);
        }
    }
}
