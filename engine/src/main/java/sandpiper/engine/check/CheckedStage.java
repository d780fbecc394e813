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
    private final boolean tried;

    /**
     * @param tried whether nothing will be kept: then work that is refused for something else goes
     *     on, so that whoever tries is told as much as can be
     */
    public CheckedStage(IntegrityChecks checks, FaultLog faults, Flush flush, boolean tried) {
        this.tried = tried;
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
        boolean isDistinct = checks.checkDistinct(record);
        if (tried ? !isDistinct : faults.isStopped()) {
            throw new WorkStoppedException();
        }
        flush.push(record);
    }
}
