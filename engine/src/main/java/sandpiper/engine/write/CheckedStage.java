package sandpiper.engine.write;

/** Pushes only what the tables take, which insist on keys and unique values. */
final class CheckedStage implements Stage {
    private final IntegrityChecks checks;
    private final FaultLog faults;
    private final Flush flush;

    CheckedStage(IntegrityChecks checks, FaultLog faults, Flush flush) {
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
