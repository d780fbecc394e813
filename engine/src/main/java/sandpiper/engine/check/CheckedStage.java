package sandpiper.engine.check;

import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.Flush;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Stage;
import sandpiper.engine.work.WorkStoppedException;

/** Pushes only what the tables take, which insist on keys and unique values. */
public final class CheckedStage implements Stage {
    private final IntegrityChecks checks;
    private final FaultLog faults;
    private final Flush flush;

    public CheckedStage(IntegrityChecks checks, FaultLog faults, Flush flush) {
        this.checks = checks;
        this.faults = faults;
        this.flush = flush;
    }

    @Override
    public void together(Runnable pushes) {
        checks.gathered(pushes);
    }

    @Override
    public void push(RecordState record) {
        checks.checkDistinct(record);
        if (faults.isStopped()) {
            throw new WorkStoppedException();
        }
        flush.push(record);
    }
}
