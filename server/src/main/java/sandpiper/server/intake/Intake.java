package sandpiper.server.intake;

/** What others must know of taking in. */
public final class Intake {
    /** Threads of the web server that may wait for bodies, beside those that work. */
    public static final int THREADS = IntakeFilter.READING + 32;

    private Intake() {}
}
