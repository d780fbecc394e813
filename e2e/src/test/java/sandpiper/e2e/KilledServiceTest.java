package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import sandpiper.demo.Bookkeeping;
import tools.jackson.databind.JsonNode;

/** The service is killed while events are on their way, as a machine that loses its power. */
class KilledServiceTest {
    private static final int WRITERS = 4;
    private static final int ENOUGH = 120;

    /** More are done with {@code -Dsandpiper.kills=30}. */
    private static final int KILLS = Integer.getInteger("sandpiper.kills", 2);

    /** Messages that can be on their way to one receiver. */
    private static final int AT_ONCE = 16;

    private static final Map<String, String> FILES =
            Map.of(
                    "buoys/package.yaml",
                    "package: buoys\nversion: 1.0\nlabel: Buoys\n",
                    "buoys/events/BellRang.yaml",
                    "event: BellRang\nabout: Bell\nfields: { stroke: integer }\n",
                    "buoys/objects/Bell.yaml",
                    """
                    object: Bell
                    key: [code]
                    fields:
                      code:    { type: text, length: 10 }
                      strokes: { type: integer, default: 0 }
                      heard:   { type: integer, default: 0 }
                    functions:
                      ring:
                        external: true
                        parameters: { stroke: integer, fails: boolean }
                        body: |
                          set strokes = strokes + 1
                          emit BellRang { stroke: stroke }
                          if fails = true then
                            reject "The rope is torn."
                          end
                    handlers:
                      hear:
                        on: BellRang
                        then: set heard = heard + 1
                    """);

    private final AtomicInteger next = new AtomicInteger();

    @TempDir private Path folder;
    private ServiceProcess service;

    @AfterEach
    void stop() {
        if (service != null) {
            service.close();
        }
    }

    /** Starts the service as a program of its own and gives a client of it. */
    private ManageClient start(Bookkeeping bookkeeping) throws IOException {
        service =
                ServiceProcess.start(
                        folder.resolve("data.db"),
                        Map.of(
                                "SANDPIPER_WEBHOOKS_ALLOW",
                                bookkeeping.place(),
                                "SANDPIPER_WEBHOOKS_RETRIES",
                                "PT0.2S,PT0.5S,PT1S,PT1S,PT1S,PT1S"));
        return service.client();
    }

    @Test
    void everyEventOfAnAnsweredWriteArrivesAndNoneOfOneThatWasRolledBack() throws Exception {
        try (var bookkeeping = Bookkeeping.start(0)) {
            var client = start(bookkeeping);
            prepare(client, bookkeeping);
            var answered = new HashSet<Integer>();
            for (int kill = 0; kill < KILLS; kill++) {
                // What was answered is on its way when the power fails, and every other time some
                // of it arrives just then.
                bookkeeping.behave(kill % 2 == 0 ? Bookkeeping.Mode.DOWN : Bookkeeping.Mode.WELL);
                var now = ringUntilKilled(client);
                assertThat(now).hasSizeGreaterThanOrEqualTo(ENOUGH);
                answered.addAll(now);

                client = start(bookkeeping);
                bookkeeping.behave(Bookkeeping.Mode.WELL);
                awaitNothingWaits(client);
                assertAllArrived(client, bookkeeping, answered);
            }
            long received = bookkeeping.answers().stream().filter(one -> one == 200).count();
            // Once more comes only what was answered while the service ended.
            assertThat(received - bookkeeping.ledger().size())
                    .as("messages of %,d that came twice", received)
                    .isBetween(0L, (long) KILLS * AT_ONCE);
        }
    }

    private static void assertAllArrived(
            ManageClient client, Bookkeeping bookkeeping, Set<Integer> answered) {
        var arrived = bookkeeping.ledger().stream().map(KilledServiceTest::stroke).toList();
        assertThat(arrived).doesNotHaveDuplicates().containsAll(answered);
        assertThat(arrived).allMatch(stroke -> stroke > 0);
        // A write may be kept whose answer was lost with the connection, but never half of one.
        int kept = 0;
        for (var bell : client.get("/manage/v1/records/Bell").path("records")) {
            var values = bell.path("values");
            assertThat(values.path("heard").asInt()).isEqualTo(values.path("strokes").asInt());
            kept += values.path("strokes").asInt();
        }
        assertThat(arrived).hasSize(kept);
    }

    private static void prepare(ManageClient client, Bookkeeping bookkeeping) {
        client.post("/manage/v1/draft/push", Map.of("files", FILES));
        client.post("/manage/v1/releases", Map.of("note", "Bells"));
        for (int i = 0; i < WRITERS; i++) {
            client.post("/manage/v1/records/Bell", Map.of("code", "B-" + i));
        }
        var made =
                client.post(
                        "/manage/v1/webhooks",
                        Map.of(
                                "name", "keeper",
                                "address", bookkeeping.address(),
                                "events", List.of("BellRang")));
        bookkeeping.trust(made.path("secret").asString());
    }

    /** Rings from several sides, every fifth time in vain; gives the strokes that were answered. */
    private Set<Integer> ringUntilKilled(ManageClient client) throws Exception {
        var answered = ConcurrentHashMap.<Integer>newKeySet();
        try (var pool = Executors.newFixedThreadPool(WRITERS)) {
            for (int i = 0; i < WRITERS; i++) {
                var key = "B-" + i;
                pool.execute(() -> ring(client, key, answered));
            }
            var end = Instant.now().plus(Duration.ofSeconds(30));
            while (answered.size() < ENOUGH && Instant.now().isBefore(end)) {
                Thread.sleep(5);
            }
            service.kill();
        }
        return answered;
    }

    private void ring(ManageClient client, String key, Set<Integer> answered) {
        while (true) {
            int stroke = next.incrementAndGet();
            boolean fails = stroke % 5 == 0;
            try {
                client.post(
                        "/manage/v1/functions/Bell/ring",
                        Map.of(
                                "key",
                                key,
                                "arguments",
                                Map.of("stroke", fails ? -stroke : stroke, "fails", fails)));
                answered.add(stroke);
            } catch (RefusedException e) {
                if (!fails || e.status() != 422) {
                    return;
                }
            }
        }
    }

    private static int stroke(Object event) {
        return ((JsonNode) event).path("data").path("stroke").asInt();
    }

    private static void awaitNothingWaits(ManageClient client) throws InterruptedException {
        var end = Instant.now().plus(Duration.ofSeconds(60));
        while (true) {
            client.post("/manage/v1/deliveries/redeliver", Map.of());
            var counts = client.get("/manage/v1/deliveries/counts");
            if (counts.path("waiting").asInt() == 0 && counts.path("parked").asInt() == 0) {
                return;
            }
            assertThat(Instant.now()).as(counts.toString()).isBefore(end);
            Thread.sleep(100);
        }
    }
}
