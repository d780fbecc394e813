package sandpiper.engine.rehearsal;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.engine.example.ExampleResult;
import sandpiper.engine.rehearsal.RehearsalReport.ServedAt;
import sandpiper.engine.rehearsal.RehearsalReport.Stage;
import sandpiper.engine.rehearsal.RehearsalReport.Took;

/** Gathers what a rehearsal comes to; written by one thread, read by any. */
final class Progress {
    private final Instant begun;
    private final String by;
    private final int release;
    private Stage stage = Stage.COPYING;
    private long bytes;
    private Took took = Took.NOTHING;
    private List<String> worked = List.of();
    private @Nullable ReleasePreview preview;
    private List<ExampleResult> failing = List.of();
    private List<ExampleResult> differing = List.of();
    private @Nullable ReplayReport replay;
    private @Nullable ServedAt served;
    private @Nullable String message;
    private boolean refused;

    Progress(Instant begun, String by, int release) {
        this.begun = begun;
        this.by = by;
        this.release = release;
    }

    synchronized RehearsalReport report() {
        return new RehearsalReport(
                stage, begun, by, release, bytes, took, worked, preview, failing, differing, replay,
                served, message);
    }

    synchronized void copied(long size, Duration time) {
        bytes = size;
        took = new Took(time, Duration.ZERO, Duration.ZERO);
        stage = Stage.RELEASING;
    }

    synchronized void released(ReleasePreview told, Duration time, List<String> open) {
        preview = told;
        took = new Took(took.copying(), time, Duration.ZERO);
        worked = open;
        stage = Stage.FORMULAS;
    }

    synchronized void workedOut(Duration time) {
        took = new Took(took.copying(), took.releasing(), time);
        stage = Stage.EXAMPLES;
    }

    synchronized void played(List<ExampleResult> alone, List<ExampleResult> onRecords) {
        failing = alone;
        differing = onRecords;
        stage = Stage.SERVING;
    }

    synchronized void replaying() {
        stage = Stage.REPLAYING;
    }

    synchronized void replayed(ReplayReport report) {
        replay = report;
    }

    /** Came to its end, and is served from now on. */
    synchronized void served(ServedAt at) {
        served = at;
        stage = Stage.DONE;
    }

    /** The release was refused; what is left is to clear away. */
    synchronized void refused(ReleasePreview told) {
        preview = told;
        refused = true;
    }

    /**
     * Nothing more comes, and it is served no longer.
     *
     * @param why it did not come to its end, or {@code null} when it did
     */
    synchronized void over(@Nullable String why) {
        if (!stage.isOver()) {
            stage = refused ? Stage.REFUSED : Stage.STOPPED;
            message = why;
        }
        served = null;
    }
}
