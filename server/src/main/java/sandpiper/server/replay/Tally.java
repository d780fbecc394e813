package sandpiper.server.replay;

import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.rehearsal.ReplayReport;

/** Counts what was played, and what differs in the same way; what was not played was skipped. */
final class Tally {
    /** Ways in which answers differ that are told. */
    private static final int TOLD = 100;

    private final Map<String, Integer> ofTitle = new HashMap<>();
    private final Map<String, Alike> differing = new LinkedHashMap<>();
    private @Nullable Instant since;
    private int all;
    private int played;

    private static final class Alike {
        private final RecordedCall first;
        private final AnswerComparison.Difference difference;
        private int count;

        Alike(RecordedCall first, AnswerComparison.Difference difference) {
            this.first = first;
            this.difference = difference;
        }
    }

    void played(RecordedCall call, Optional<AnswerComparison.Difference> difference) {
        played++;
        ofTitle.merge(call.title(), 1, Integer::sum);
        difference.ifPresent(one ->
                differing.computeIfAbsent(
                                call.title() + " " + one.kind(), _ -> new Alike(call, one))
                        .count++);
    }

    /** Counts one that is kept, whether or not it is played. */
    void came(RecordedCall call) {
        all++;
        if (since == null) {
            since = call.at();
        }
    }

    ReplayReport report() {
        return new ReplayReport(
                since,
                played,
                all - played,
                differing.values().stream()
                        .sorted(Comparator.comparingInt((Alike one) -> one.count).reversed())
                        .limit(TOLD)
                        .map(this::told)
                        .toList());
    }

    private ReplayReport.Difference told(Alike one) {
        return new ReplayReport.Difference(
                one.first.title(),
                one.count,
                ofTitle.getOrDefault(one.first.title(), one.count),
                one.difference.now(),
                one.difference.then(),
                "%s %s, %s".formatted(one.first.method(), one.first.target(), one.first.client()));
    }
}
