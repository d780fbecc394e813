package sandpiper.engine.work;

/** Ends a unit of work from deep inside; its faults say why. */
public final class WorkStoppedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public WorkStoppedException() {
        super("The work was stopped", null, false, false);
    }
}
