package sandpiper.engine.write;

/** Ends a unit of work from deep inside; its faults say why. */
final class WorkStoppedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    WorkStoppedException() {
        super("The work was stopped", null, false, false);
    }
}
