package sandpiper.engine.writer;

import java.io.PrintStream;
import java.nio.charset.StandardCharsets;

/**
 * Ends a process that cannot be trusted any more. After an error of the machine itself, such as no
 * memory left, threads are gone and locks are held: nothing that is answered afterwards would be
 * worth anything, while a supervisor starts another in seconds.
 */
public final class LastWord {
    /** The exit code: {@code EX_SOFTWARE}, so that a supervisor knows to start again. */
    public static final int EXIT_CODE = 70;

    /** Made beforehand: there may be no memory left to make it with. */
    private static final byte[] SENTENCE =
            "Sandpiper ends: the machine ran into an error it cannot go on after. What was answered is stored.\n"
                    .getBytes(StandardCharsets.UTF_8);

    private LastWord() {}

    /** Has every thread that nobody looks after end the process with its error. */
    public static void install() {
        Thread.setDefaultUncaughtExceptionHandler((_, thrown) -> {
            if (isFinal(thrown)) {
                end(thrown);
            }
            System.err.println("A thread ended: " + thrown);
        });
    }

    /** Whether nothing can be trusted after it. */
    public static boolean isFinal(Throwable thrown) {
        for (var at = thrown; at != null; at = at.getCause()) {
            if (at instanceof Error && !(at instanceof StackOverflowError)) {
                return true;
            }
        }
        return false;
    }

    /** Ends the process; does not return. */
    public static void end(Throwable thrown) {
        try {
            PrintStream err = System.err;
            err.write(SENTENCE, 0, SENTENCE.length);
            err.println(thrown);
            err.flush();
        } finally {
            Runtime.getRuntime().halt(EXIT_CODE);
        }
    }
}
