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
 * @param copying how long that took
 * @param releasing how long the release took on the copy, in which nothing else is written; that is
 *     how long the real one keeps writers waiting
 * @param formulas how long formulas took afterwards, beside which the real one is served
 * @param worked which formulas those were
 * @param preview what the release does, or {@code null} before that is known
 * @param failing examples that do not hold by themselves
 * @param differing examples that hold by themselves, but not on the records there are, where they
 *     hold with what is live or are new
 * @param message why it would be refused or could not go on, or {@code null}
 */
public record RehearsalReport(
        Stage stage,
        Instant begun,
        String by,
        int release,
        long bytes,
        Duration copying,
        Duration releasing,
        Duration formulas,
        List<String> worked,
        @Nullable ReleasePreview preview,
        List<ExampleResult> failing,
        List<ExampleResult> differing,
        @Nullable String message) {
    public RehearsalReport {
        worked = List.copyOf(worked);
        failing = List.copyOf(failing);
        differing = List.copyOf(differing);
    }

    /** How far it has come. */
    public enum Stage {
        COPYING,
        RELEASING,
        FORMULAS,
        EXAMPLES,
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

    static RehearsalReport begun(Instant now, String by, int release) {
        return new RehearsalReport(
                Stage.COPYING,
                now,
                by,
                release,
                0,
                Duration.ZERO,
                Duration.ZERO,
                Duration.ZERO,
                List.of(),
                null,
                List.of(),
                List.of(),
                null);
    }

    RehearsalReport copied(long size, Duration took) {
        return new RehearsalReport(
                Stage.RELEASING,
                begun,
                by,
                release,
                size,
                took,
                releasing,
                formulas,
                worked,
                preview,
                failing,
                differing,
                message);
    }

    RehearsalReport released(ReleasePreview told, Duration took, List<String> open) {
        return new RehearsalReport(
                Stage.FORMULAS,
                begun,
                by,
                release,
                bytes,
                copying,
                took,
                formulas,
                open,
                told,
                failing,
                differing,
                message);
    }

    RehearsalReport workedOut(Duration took) {
        return new RehearsalReport(
                Stage.EXAMPLES,
                begun,
                by,
                release,
                bytes,
                copying,
                releasing,
                took,
                worked,
                preview,
                failing,
                differing,
                message);
    }

    RehearsalReport played(List<ExampleResult> alone, List<ExampleResult> onRecords) {
        return new RehearsalReport(
                Stage.DONE,
                begun,
                by,
                release,
                bytes,
                copying,
                releasing,
                formulas,
                worked,
                preview,
                alone,
                onRecords,
                message);
    }

    RehearsalReport over(Stage end, @Nullable ReleasePreview told, String why) {
        return new RehearsalReport(
                end,
                begun,
                by,
                release,
                bytes,
                copying,
                releasing,
                formulas,
                worked,
                told == null ? preview : told,
                failing,
                differing,
                why);
    }
}
