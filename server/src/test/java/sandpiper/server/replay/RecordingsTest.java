package sandpiper.server.replay;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RecordingsTest {
    private static final Instant NOW = Instant.parse("2026-05-01T10:00:00Z");
    private static final Clock CLOCK = Clock.fixed(NOW, ZoneOffset.UTC);

    @TempDir private Path folder;

    private Recordings open(long most) {
        return new Recordings(folder.resolve("data.db"), most, Duration.ofDays(7), CLOCK);
    }

    private static RecordedCall call(int number, Instant at) {
        return new RecordedCall(
                at,
                "desk v1 stays create, REST",
                "site",
                "POST",
                "/api/desk/v1/stays?n=" + number,
                Map.of("Accept", "*/*"),
                "{\"né\": 1}".getBytes(StandardCharsets.UTF_8));
    }

    private static List<RecordedCall> all(Recordings recordings) {
        try (var calls = recordings.all()) {
            return calls.toList();
        }
    }

    private long size() throws IOException {
        long size = 0;
        try (var files = Files.list(folder)) {
            for (var file : files.toList()) {
                size += Files.size(file);
            }
        }
        return size;
    }

    @Test
    void callsAreReadAsTheyCameAlsoAfterARestart() {
        try (var recordings = open(1 << 20)) {
            recordings.add(call(1, NOW));
            recordings.add(call(2, NOW));
            assertThat(all(recordings)).extracting(RecordedCall::target).hasSize(2);
        }
        try (var again = open(1 << 20)) {
            var read = all(again).getLast();
            assertThat(read).usingRecursiveComparison().isEqualTo(call(2, NOW));
        }
    }

    @Test
    void theyTakeNoMoreRoomThanIsAllowed() throws Exception {
        long most = 64 << 10;
        try (var recordings = open(most)) {
            for (int i = 0; i < 3_000; i++) {
                recordings.add(call(i, NOW));
                if (i % 100 == 0) {
                    all(recordings);
                }
            }
            assertThat(all(recordings).getLast().target()).endsWith("n=2999");
            assertThat(all(recordings)).hasSizeBetween(50, 2_900);
            // A batch may reach over the half at which the files change.
            assertThat(size()).isLessThan(most * 3 / 2);
        }
    }

    @Test
    void whatIsTooOldIsNotPlayedAndForgotten() throws Exception {
        try (var recordings = open(1 << 20)) {
            recordings.add(call(1, NOW.minus(Duration.ofDays(8))));
            recordings.add(call(2, NOW));
            assertThat(all(recordings)).hasSize(1);
            try (var files = Files.list(folder)) {
                for (var file : files.toList()) {
                    Files.setLastModifiedTime(
                            file,
                            java.nio.file.attribute.FileTime.from(NOW.minus(Duration.ofDays(8))));
                }
            }
            recordings.forgetOld();
            assertThat(all(recordings)).isEmpty();
            assertThat(size()).isZero();
        }
    }

    @Test
    void aLineThatIsNotWholeIsLeftOut() throws Exception {
        try (var recordings = open(1 << 20)) {
            recordings.add(call(1, NOW));
            all(recordings);
            Files.writeString(
                    folder.resolve("data.db.calls"),
                    "{\"at\":\"2026-05-01T1",
                    StandardOpenOption.APPEND);
            Files.write(
                    folder.resolve("data.db.calls"),
                    new byte[] {'\n', (byte) 0xc3},
                    StandardOpenOption.APPEND);
            assertThat(all(recordings)).hasSize(1);
        }
    }

    @Test
    void whereNothingMayBeKeptWhatWasIsTakenAway() throws Exception {
        try (var recordings = open(1 << 20)) {
            recordings.add(call(1, NOW));
            all(recordings);
        }
        assertThat(size()).isPositive();
        try (var none = open(0)) {
            none.add(call(2, NOW));
            assertThat(all(none)).isEmpty();
            assertThat(size()).isZero();
        }
    }
}
