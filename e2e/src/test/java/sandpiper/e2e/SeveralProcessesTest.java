package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import sandpiper.demo.Bookkeeping;
import sandpiper.demo.Demo;
import sandpiper.testing.PrivatePostgres;
import tools.jackson.databind.JsonNode;

/**
 * Two processes on one database, under load: one of them is killed again and again, the database is
 * restarted, a release comes in between. Callers go on at the other address when one does not
 * answer.
 */
class SeveralProcessesTest {
    private static final int WRITERS = 6;

    /** More are done with {@code -Dsandpiper.kills=30}. */
    private static final int KILLS = Integer.getInteger("sandpiper.kills", 2);

    private static final String BELL =
            """
            object: Bell
            key: [code]
            fields:
              code:    { type: text, length: 10 }
              strokes: { type: integer, default: 0 }
              heard:   { type: integer, default: 0 }
              sum:     { type: integer, formula: count(tolls) }
            functions:
              ring:
                external: true
                parameters: { stroke: integer, fails: boolean }
                body: |
                  set strokes = strokes + 1
                  create Toll { bell: this, stroke: stroke }
                  emit BellRang { stroke: stroke }
                  if fails = true then
                    reject "The rope is torn."
                  end
            handlers:
              hear:
                on: BellRang
                then: set heard = heard + 1
            """;
    private static final String TOLL =
            """
            object: Toll
            key: number
            numbering: { field: number, pattern: "T-{sequence:6}" }
            fields:
              number: { type: text, length: 12 }
              bell:   { type: reference, to: Bell, required: true, inverse: tolls }
              stroke: { type: integer, required: true, unique: true }
            """;
    private static final Map<String, String> FILES =
            Map.of(
                    "buoys/package.yaml",
                    "package: buoys\nversion: 1.0\nlabel: Buoys\n",
                    "buoys/events/BellRang.yaml",
                    "event: BellRang\nabout: Bell\nfields: { stroke: integer }\n",
                    "buoys/objects/Bell.yaml",
                    BELL,
                    "buoys/objects/Toll.yaml",
                    TOLL);

    private final AtomicInteger next = new AtomicInteger();
    private final Set<Integer> answered = ConcurrentHashMap.newKeySet();
    private final ServiceProcess[] services = new ServiceProcess[2];
    private final ManageClient[] clients = new ManageClient[2];

    @TempDir private Path folder;
    private PrivatePostgres postgres;
    private String data;

    @BeforeEach
    void begin() {
        postgres = PrivatePostgres.start();
        data = postgres.schema();
    }

    @AfterEach
    void stop() {
        for (var service : services) {
            if (service != null) {
                service.close();
            }
        }
        postgres.close();
    }

    private void start(int which, Bookkeeping bookkeeping) throws IOException {
        services[which] =
                ServiceProcess.start(
                        data,
                        Map.of(
                                "SANDPIPER_KEY_FILE",
                                folder.resolve("key").toString(),
                                "SANDPIPER_WEBHOOKS_ALLOW",
                                bookkeeping.place(),
                                "SANDPIPER_WEBHOOKS_TIMEOUT",
                                "2s",
                                "SANDPIPER_WEBHOOKS_RETRIES",
                                "PT0.2S,PT0.5S,PT1S,PT1S,PT1S,PT1S"));
        clients[which] = services[which].client();
    }

    @Test
    void whateverDiesNothingIsLostDoneTwiceOrMiscounted() throws Exception {
        try (var bookkeeping = Bookkeeping.start(0)) {
            bookkeeping.behave(Bookkeeping.Mode.WELL);
            start(0, bookkeeping);
            start(1, bookkeeping);
            prepare(bookkeeping);

            var over = new AtomicBoolean();
            try (var pool = Executors.newFixedThreadPool(WRITERS)) {
                for (int i = 0; i < WRITERS; i++) {
                    int writer = i;
                    pool.execute(() -> ring(writer, over));
                }
                try {
                    for (int kill = 0; kill < KILLS; kill++) {
                        untilMore(80);
                        services[kill % 2].kill();
                        untilMore(40);
                        start(kill % 2, bookkeeping);
                    }
                    untilMore(40);
                    postgres.down(true);
                    Thread.sleep(500);
                    postgres.up();
                    untilMore(40);
                    release();
                    untilMore(80);
                } finally {
                    over.set(true);
                }
                pool.shutdown();
                assertThat(pool.awaitTermination(60, TimeUnit.SECONDS)).isTrue();
            }

            awaitNothingWaits();
            assertThatAllIsRight(bookkeeping);
        }
    }

    @Test
    void peopleAndWhoeverTriesPasswordsMeetTheSameServiceAtEach() throws Exception {
        try (var bookkeeping = Bookkeeping.start(0);
                var browser = HttpClient.newBuilder().cookieHandler(new CookieManager()).build()) {
            start(0, bookkeeping);
            start(1, bookkeeping);
            var status = clients[1].get("/manage/v1/status").path("sharing").path("processes");
            assertThat(status).hasSize(2);

            assertThat(session(browser, 0).statusCode()).isEqualTo(401);
            assertThat(signIn(browser, 0, Demo.PASSWORD).statusCode()).isEqualTo(200);
            assertThat(session(browser, 1).statusCode()).as("at the other").isEqualTo(200);
            services[0].kill();
            start(0, bookkeeping);
            assertThat(session(browser, 0).statusCode()).as("started again").isEqualTo(200);

            for (int i = 0; i < 5; i++) {
                assertThat(signIn(browser, i % 2, "wrong" + i).statusCode()).isEqualTo(401);
            }
            assertThat(signIn(browser, 1, "wrong").statusCode()).isEqualTo(429);
            assertThat(signIn(browser, 0, "wrong").statusCode()).isEqualTo(429);
        }
    }

    private HttpResponse<String> session(HttpClient browser, int at) throws Exception {
        return browser.send(
                HttpRequest.newBuilder(URI.create(services[at].address() + "/manage/v1/session"))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private HttpResponse<String> signIn(HttpClient browser, int at, String password)
            throws Exception {
        var cookies = (CookieManager) browser.cookieHandler().orElseThrow();
        var token =
                cookies.getCookieStore().getCookies().stream()
                        .filter(cookie -> cookie.getName().equals("XSRF-TOKEN"))
                        .findFirst()
                        .orElseThrow()
                        .getValue();
        return browser.send(
                HttpRequest.newBuilder(URI.create(services[at].address() + "/manage/v1/session"))
                        .header("Content-Type", "application/json")
                        .header("X-XSRF-TOKEN", token)
                        .POST(
                                HttpRequest.BodyPublishers.ofString(
                                        "{\"name\": \"%s\", \"password\": \"%s\"}"
                                                .formatted(Demo.ADMIN, password)))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private void untilMore(int wanted) throws InterruptedException {
        int before = answered.size();
        var end = Instant.now().plus(Duration.ofSeconds(60));
        while (answered.size() < before + wanted) {
            assertThat(Instant.now())
                    .as("%d were answered", answered.size() - before)
                    .isBefore(end);
            Thread.sleep(5);
        }
    }

    private void prepare(Bookkeeping bookkeeping) {
        clients[0].post("/manage/v1/draft/push", Map.of("files", FILES));
        clients[0].post("/manage/v1/releases", Map.of("note", "Bells"));
        for (int i = 0; i < 3; i++) {
            clients[0].post("/manage/v1/records/Bell", Map.of("code", "B-" + i));
        }
        var made =
                clients[0].post(
                        "/manage/v1/webhooks",
                        Map.of(
                                "name", "keeper",
                                "address", bookkeeping.address(),
                                "events", List.of("BellRang")));
        bookkeeping.trust(made.path("secret").asString());
    }

    private void release() {
        var more = new HashMap<>(FILES);
        more.put(
                "buoys/objects/Bell.yaml",
                BELL.replace(
                        "functions:",
                        "  tone: { type: text, required: true, default: \"deep\" }\nfunctions:"));
        clients[1].post("/manage/v1/draft/push", Map.of("files", more));
        clients[1].post("/manage/v1/releases", Map.of("note", "Tones"));
    }

    /** Rings at one address, and at the other when it does not answer; every fifth time in vain. */
    private void ring(int writer, AtomicBoolean over) {
        int at = writer % 2;
        while (!over.get()) {
            int stroke = next.incrementAndGet();
            boolean fails = stroke % 5 == 0;
            try {
                clients[at].post(
                        "/manage/v1/functions/Bell/ring",
                        Map.of(
                                "key",
                                "B-" + writer % 3,
                                "arguments",
                                Map.of("stroke", fails ? -stroke : stroke, "fails", fails)));
                answered.add(stroke);
            } catch (RefusedException e) {
                // 422 is the rope; anything else is no answer, after which nobody knows.
                if (e.status() != 422) {
                    at = 1 - at;
                }
            }
        }
    }

    private void awaitNothingWaits() throws InterruptedException {
        var end = Instant.now().plus(Duration.ofSeconds(120));
        while (true) {
            clients[0].post("/manage/v1/deliveries/redeliver", Map.of());
            var counts = clients[0].get("/manage/v1/deliveries/counts");
            if (counts.path("waiting").asInt() == 0
                    && counts.path("parked").asInt() == 0
                    && heard() == strokes()) {
                return;
            }
            assertThat(Instant.now()).as(counts.toString()).isBefore(end);
            Thread.sleep(100);
        }
    }

    private int total(String field) {
        int total = 0;
        for (var bell : clients[1].get("/manage/v1/records/Bell").path("records")) {
            total += bell.path("values").path(field).asInt();
        }
        return total;
    }

    private int heard() {
        return total("heard");
    }

    private int strokes() {
        return total("strokes");
    }

    private void assertThatAllIsRight(Bookkeeping bookkeeping) {
        int kept = strokes();
        var numbers = new HashSet<String>();
        var stored = new HashSet<Integer>();
        var place = "/manage/v1/records/Toll?limit=200";
        var page = clients[1].get(place);
        while (true) {
            for (var toll : page.path("records")) {
                numbers.add(toll.path("values").path("number").asString());
                stored.add(toll.path("values").path("stroke").asInt());
            }
            var after = page.path("next").asString("");
            if (after.isEmpty()) {
                break;
            }
            page = clients[1].get(place + "&after=" + after);
        }
        assertThat(stored).as("answered writes lost").containsAll(answered);
        assertThat(numbers).as("numbers given twice").hasSameSizeAs(stored);
        assertThat(stored).as("effects done twice or by half").hasSize(kept);
        assertThat(total("sum")).as("totals").isEqualTo(kept);
        var arrived = bookkeeping.ledger().stream().map(SeveralProcessesTest::stroke).toList();
        assertThat(arrived).as("events").doesNotHaveDuplicates().hasSize(kept);
        assertThat(stored).allMatch(stroke -> stroke > 0);
    }

    private static int stroke(Object event) {
        return ((JsonNode) event).path("data").path("stroke").asInt();
    }
}
