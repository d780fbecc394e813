package sandpiper.engine.rehearsal;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What recorded requests are answered on a copy, without the draft and with it.
 *
 * @param since when the oldest of them was made
 * @param played how many there were
 * @param skipped those that could not be played, as by clients that are no longer there
 * @param differences what is answered otherwise, the most frequent first
 */
public record ReplayReport(
        @Nullable Instant since, int played, int skipped, List<Difference> differences) {
    public ReplayReport {
        differences = List.copyOf(differences);
    }

    /**
     * Requests of a kind whose answers differ in the same way.
     *
     * @param call the kind, such as {@code create stays, berth-desk v1, REST}
     * @param count how many
     * @param of how many of the kind were played
     * @param now how they are answered without the draft
     * @param then how they are answered with it
     * @param example one of them: its method and address
     */
    public record Difference(
            String call, int count, int of, String now, String then, String example) {}
}
