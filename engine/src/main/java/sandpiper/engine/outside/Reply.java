package sandpiper.engine.outside;

import org.jspecify.annotations.Nullable;

/** What came of a question to an outside service. */
public sealed interface Reply {
    /**
     * An answer.
     *
     * @param plain texts, numbers, booleans, maps, lists, or {@code null}. Of entries a list of
     *     {@link Entry}, of one entry that or {@code null} when there is none
     */
    record Answer(@Nullable Object plain) implements Reply {}

    /**
     * None, or none that can be used.
     *
     * @param message a sentence for people that names the connection; never a secret
     * @param down whether the service did not answer, so that it may do so later
     */
    record Failure(String message, boolean down) implements Reply {}

    /** A code that an outside service knows. */
    record Entry(String code, String label) {}
}
