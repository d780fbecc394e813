package sandpiper.engine.rehearsal;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.example.ExampleResult;

/**
 * A rehearsal, as far as it has come.
 *
 * @param release the one that was live when the copy was made
 * @param bytes how large the copy is; 0 before it is made
 * @param took how long its steps took
 * @param worked which formulas were worked out after the release
 * @param preview what the release does, or {@code null} before that is known
 * @param failing examples that do not hold by themselves
 * @param differing examples that hold by themselves, but not on the records there are, where they
 *     hold with what is live or are new
 * @param replay what recorded requests are answered, or {@code null} when none were replayed
 * @param served where the copy is served now, or {@code null} when it is not
 * @param message why it would be refused or could not go on, or {@code null}
 */
public record RehearsalReport(
        Stage stage,
        Instant begun,
        String by,
        int release,
        long bytes,
        Took took,
        List<String> worked,
        @Nullable ReleasePreview preview,
        List<ExampleResult> failing,
        List<ExampleResult> differing,
        @Nullable ReplayReport replay,
        @Nullable ServedAt served,
        @Nullable String message) {
    public RehearsalReport {
        worked = List.copyOf(worked);
        failing = List.copyOf(failing);
        differing = List.copyOf(differing);
    }

    /**
     * How long its steps took.
     *
     * @param copying the copying
     * @param releasing the release on the copy, in which nothing else is written; that is how long
     *     the real one keeps writers waiting
     * @param formulas formulas afterwards, beside which the real one is served
     */
    public record Took(Duration copying, Duration releasing, Duration formulas) {
        /** Before anything was done. */
        public static final Took NOTHING = new Took(Duration.ZERO, Duration.ZERO, Duration.ZERO);
    }

    /**
     * A copy that is served.
     *
     * @param place from the root of the service, without a slash at the end
     * @param until when it is thrown away
     */
    public record ServedAt(String place, Instant until) {}

    /** How far it has come. */
    public enum Stage {
        COPYING,
        RELEASING,
        FORMULAS,
        EXAMPLES,
        /** The copy is about to be served. */
        SERVING,
        REPLAYING,
        /** It came to its end; the real release would go like it. */
        DONE,
        /** The release was refused on the copy, as it would be. */
        REFUSED,
        /** It was ended, or could not go on. */
        STOPPED;

        /** Whether nothing more comes. */
        public boolean isOver() {
            return this == DONE || this == REFUSED || this == STOPPED;
        }
    }
}
