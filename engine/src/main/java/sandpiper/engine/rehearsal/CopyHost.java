package sandpiper.engine.rehearsal;

import java.time.Instant;

/** Serves a copy beside the live data, and knows what the live service was asked. */
public interface CopyHost {
    /**
     * What is served.
     *
     * @param data where the copy is, as {@code sandpiper.data} says it
     * @param made when it was copied
     * @param changes files of the draft that differ from what is live
     * @param by who rehearses
     */
    record Copy(String data, Instant made, int changes, String by) {}

    /** A copy while it is served; closing it ends that. */
    interface Served extends AutoCloseable {
        /** Where it answers, from the root of the service, without a slash at the end. */
        String place();

        @Override
        void close();
    }

    /** Whether requests are kept that can be replayed. */
    boolean hasCalls();

    /**
     * Serves a copy, and returns when it answers.
     *
     * @throws RuntimeException when it cannot be served, with why
     */
    Served serve(Copy copy);

    /**
     * Plays what was recorded on a copy as it was and on the one that is served, and compares the
     * answers.
     *
     * @param before a copy of the same data without the draft, of which it may make what it wants
     * @throws InterruptedException when it was ended
     */
    ReplayReport replay(Copy before, Served after) throws InterruptedException;
}
