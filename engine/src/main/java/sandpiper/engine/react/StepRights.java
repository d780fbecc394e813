package sandpiper.engine.react;

import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.RecordCode;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Rights;
import sandpiper.model.release.ObjectRecordType;

/**
 * What steps may do on behalf of the one who set them off; what is refused is told in the trace and
 * among the faults.
 *
 * @param subject the record the steps are of, which has been granted already, or {@code null}
 */
record StepRights(
        StepContext context, Tracer tracer, @Nullable RecordState subject, Rights granted) {

    /** Whether a record may be changed; says so when it may not. */
    boolean mayChange(RecordState record, Action action) {
        if (record == subject || record.isNew() || granted == Rights.ALL) {
            return true;
        }
        var scope = granted.scope(record.object(), action);
        boolean may = scope.isPresent() && context.workspace().isWithin(scope.get(), record);
        if (!may) {
            refuse(
                    "%s %s cannot be changed on behalf of %s: that is not granted."
                            .formatted(
                                    record.object().label(),
                                    record.keyText(),
                                    context.actor().name()));
        }
        return may;
    }

    /** Whether one may be made; says so when it may not. */
    boolean mayCreate(ObjectRecordType type) {
        boolean may = granted.scope(type.object(), Action.CREATE).isPresent();
        if (!may) {
            refuse(
                    "No %s can be created on behalf of %s: that is not granted."
                            .formatted(type.object().label(), context.actor().name()));
        }
        return may;
    }

    private void refuse(String message) {
        tracer.step(TraceStep.Kind.REFUSED, message, "", "");
        context.faults().refuse(new Fault(FaultPath.WHOLE, RecordCode.NOT_YOURS, message));
    }
}
