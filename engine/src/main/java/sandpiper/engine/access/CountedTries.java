package sandpiper.engine.access;

import java.time.Instant;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** How often passwords were tried, by whatever is counted. Safe for any thread. */
@FunctionalInterface
public interface CountedTries {
    /** So many tries, the last of them that counts at a moment. */
    record Tries(int count, Instant last) {}

    /**
     * Changes a count, one after the other.
     *
     * @param key hashed, so that no name stands in it
     * @param change gets what was counted, {@code null} for nothing, and gives what is now counted;
     *     may be called more than once
     * @return what is now counted
     */
    @Nullable Tries change(String key, UnaryOperator<@Nullable Tries> change);
}
