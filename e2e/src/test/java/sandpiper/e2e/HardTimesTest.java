package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import sandpiper.demo.Demo;

/** The service is killed, stopped and starved of room while others write. */
class HardTimesTest {
    private static final int WRITERS = 4;

    /** More are done with {@code -Dsandpiper.kills=30}. */
    private static final int KILLS = Integer.getInteger("sandpiper.kills", 2);

    private static final int CROWD = 16;
    private static final int EACH = 40;
    private static final Map<String, String> FILES =
            Map.of(
                    "buoys/package.yaml",
                    "package: buoys\nversion: 1.0\nlabel: Buoys\n",
                    "buoys/objects/Buoy.yaml",
                    """
                    object: Buoy
                    key: [code]
                    fields:
                      code:    { type: text, length: 20 }
                      tier:    { type: integer }
                      doubled: { type: integer, formula: tier * 2 }
                      remarks: { type: text, length: 4000 }
                    """,
                    "buoys/services/chart.yaml",
                    """
                    service: chart
                    version: 1
                    resources:
                      buoys:
                        object: Buoy
                        create: { fields: [code, remarks] }
                        query: { fields: [code] }
                    """);

    @TempDir Path folder;
    private final AtomicInteger next = new AtomicInteger();
    private final Set<String> answered = ConcurrentHashMap.newKeySet();

    private Path data() {
        return folder.resolve("data.db");
    }

    private static void release(ManageClient client) {
        client.post("/manage/v1/draft/push", Map.of("files", FILES));
        client.post("/manage/v1/releases", Map.of("note", "Buoys"));
    }

    /** Writes from several sides until the service answers no more. */
    private ExecutorService write(ManageClient client) {
        var pool = Executors.newFixedThreadPool(WRITERS);
        for (int i = 0; i < WRITERS; i++) {
            pool.execute(() -> {
                try {
                    while (true) {
                        var code = "B-" + next.incrementAndGet();
                        client.post("/manage/v1/records/Buoy", Map.of("code", code, "tier", 3));
                        answered.add(code);
                    }
                } catch (RefusedException _) {
                    // it is gone, or takes no more
                }
            });
        }
        return pool;
    }

    private void awaitAnswered(int more) throws InterruptedException {
        int wanted = answered.size() + more;
        var end = Instant.now().plus(Duration.ofSeconds(30));
        while (answered.size() < wanted && Instant.now().isBefore(end)) {
            Thread.sleep(5);
        }
        assertThat(answered).hasSizeGreaterThanOrEqualTo(wanted);
    }

    private void checkFile() throws Exception {
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + data());
                var sql = connection.createStatement()) {
            try (var rows = sql.executeQuery("pragma integrity_check")) {
                assertThat(rows.next()).isTrue();
                assertThat(rows.getString(1)).isEqualTo("ok");
            }
            var there = new ArrayList<String>();
            try (var rows = sql.executeQuery("select code from Buoy where doubled = 2 * tier")) {
                while (rows.next()) {
                    there.add(rows.getString(1));
                }
            }
            assertThat(there).doesNotHaveDuplicates().containsAll(answered);
            // What was written but not answered is whole as well: a record with its history.
            try (var rows =
                    sql.executeQuery(
                            "select (select count(*) from Buoy), (select count(*) from"
                                    + " sandpiper_history where object = 'Buoy')")) {
                assertThat(rows.next()).isTrue();
                assertThat(rows.getInt(1)).isEqualTo(rows.getInt(2));
            }
        }
    }

    @Test
    void nothingThatWasAnsweredIsLostHoweverOftenItIsKilled() throws Exception {
        var random = new Random(7);
        for (int kill = 0; kill < KILLS; kill++) {
            try (var service = ServiceProcess.start(data(), Map.of())) {
                if (kill == 0) {
                    release(service.client());
                }
                var writers = write(service.client());
                awaitAnswered(50 + random.nextInt(150));
                service.kill();
                writers.close();
            }
            checkFile();
        }
    }

    @Test
    void whoeverIsBeingAnsweredIsAnsweredWhenItIsStopped() throws Exception {
        try (var service = ServiceProcess.start(data(), Map.of())) {
            release(service.client());
            var writers = write(service.client());
            awaitAnswered(100);
            service.stop();
            writers.close();
        }
        checkFile();
        // It closed its books: no log is left to be worked off at the next start.
        assertThat(Path.of(data() + "-wal")).doesNotExist();
    }

    /**
     * Makes one record, however long the first takes: on a machine that is busy, with classes still
     * to be loaded, that may be longer than logic has.
     */
    private void warmUp(ServiceProcess service, HttpClient http) throws Exception {
        int status = 0;
        for (int tries = 0; tries < 10 && status != 201; tries++) {
            status =
                    http.send(creation(service), HttpResponse.BodyHandlers.discarding())
                            .statusCode();
        }
        assertThat(status).isEqualTo(201);
    }

    @Test
    void moreThanCanBeWrittenIsTurnedAwayAndToldWhenToComeAgain() throws Exception {
        var environment =
                Map.of(
                        "SANDPIPER_LIMITS_WAITING_CHANGES",
                        "1",
                        "SANDPIPER_LIMITS_BODY",
                        "64KB",
                        "SANDPIPER_LIMITS_PAGE",
                        "20");
        try (var service = ServiceProcess.start(data(), environment);
                var http = HttpClient.newHttpClient();
                var pool = Executors.newFixedThreadPool(CROWD)) {
            release(service.client());
            warmUp(service, http);
            var answers = new ConcurrentLinkedQueue<HttpResponse<String>>();
            var work = new ArrayList<Future<?>>();
            for (int i = 0; i < CROWD; i++) {
                work.add(
                        pool.submit(() -> {
                            for (int n = 0; n < EACH; n++) {
                                answers.add(
                                        http.send(
                                                creation(service),
                                                HttpResponse.BodyHandlers.ofString()));
                            }
                            return true;
                        }));
            }
            for (var one : work) {
                one.get();
            }
            assertThat(answers).extracting(HttpResponse::statusCode).containsOnly(201, 503);
            assertThat(answers)
                    .filteredOn(answer -> answer.statusCode() == 503)
                    .allSatisfy(answer -> {
                        assertThat(answer.headers().firstValue("Retry-After")).hasValue("1");
                        assertThat(answer.body()).contains("waiting to be written");
                    });
            long made = answers.stream().filter(answer -> answer.statusCode() == 201).count();
            assertThat(
                            service.client()
                                    .get("/manage/v1/records/Buoy?count=true&limit=1")
                                    .path("total")
                                    .asLong())
                    .isEqualTo(made + 1);
            assertOtherLimitsAreThoseOfTheEnvironment(service, http);
        }
    }

    private static void assertOtherLimitsAreThoseOfTheEnvironment(
            ServiceProcess service, HttpClient http) throws Exception {
        service.client()
                .post(
                        "/manage/v1/clients",
                        Map.of(
                                "name",
                                "pilot",
                                "label",
                                "Pilot",
                                "secret",
                                "north-by-northwest",
                                "grants",
                                List.of("chart/*/*")));
        var buoys = service.address() + "/api/chart/v1/buoys";
        assertThat(asPilot(http, HttpRequest.newBuilder(URI.create(buoys + "?limit=21"))))
                .contains("\"status\":400", "from 1 to 20");
        var large =
                HttpRequest.newBuilder(URI.create(buoys))
                        .header("Content-Type", "application/json")
                        .POST(
                                HttpRequest.BodyPublishers.ofString(
                                        "{\"remarks\": \"%s\"}".formatted("x".repeat(70_000))));
        assertThat(asPilot(http, large)).contains("\"status\":413", "65,536 bytes");
        // The console and the command line take the pages they need.
        assertThat(service.client().get("/manage/v1/records/Buoy?limit=500").path("records"))
                .isNotEmpty();
    }

    private static String asPilot(HttpClient http, HttpRequest.Builder request) throws Exception {
        return http.send(
                        request.header("Authorization", BasicSignIn.as("pilot:north-by-northwest"))
                                .build(),
                        HttpResponse.BodyHandlers.ofString())
                .body();
    }

    private HttpRequest creation(ServiceProcess service) {
        return HttpRequest.newBuilder(URI.create(service.address() + "/manage/v1/records/Buoy"))
                .header("Content-Type", "application/json")
                .header("Authorization", BasicSignIn.as(Demo.ADMIN + ":" + Demo.PASSWORD))
                .POST(
                        HttpRequest.BodyPublishers.ofString(
                                "{\"code\": \"C-%d\"}".formatted(next.incrementAndGet())))
                .build();
    }

    private static int status(String address) throws IOException, InterruptedException {
        try (var http = HttpClient.newHttpClient()) {
            return http.send(
                            HttpRequest.newBuilder(URI.create(address + "/manage/v1/ready"))
                                    .build(),
                            HttpResponse.BodyHandlers.discarding())
                    .statusCode();
        }
    }

    /** A little may still fit where much did not; each look takes some of what is left. */
    private static int statusInTheEnd(String address) throws IOException, InterruptedException {
        for (int i = 0; i < 20; i++) {
            if (status(address) != 200) {
                break;
            }
            // It looks once a second.
            Thread.sleep(1_100);
        }
        return status(address);
    }

    @Test
    void whenThereIsNoMoreRoomItSaysSoGoesOnReadingAndRecovers() throws Exception {
        try (var service = ServiceProcess.start(data(), Map.of())) {
            var client = service.client();
            release(client);
            client.post("/manage/v1/records/Buoy", Map.of("code", "first", "tier", 1));
            assertThat(status(service.address())).isEqualTo(200);
            limitFiles(service, Long.toString(Files.size(Path.of(data() + "-wal")) + 40_000));

            assertThatThrownBy(() -> fill(client))
                    .isInstanceOfSatisfying(
                            RefusedException.class,
                            refused -> {
                                assertThat(refused.status()).isEqualTo(503);
                                assertThat(refused).hasMessageContaining("cannot store");
                            });
            assertThat(statusInTheEnd(service.address())).isEqualTo(503);
            assertThat(
                            client.get("/manage/v1/records/Buoy/first")
                                    .path("values")
                                    .path("tier")
                                    .asInt())
                    .isEqualTo(1);

            limitFiles(service, "unlimited");
            client.post("/manage/v1/records/Buoy", Map.of("code", "last", "tier", 1));
            Thread.sleep(1_100);
            assertThat(status(service.address())).isEqualTo(200);
        }
    }

    private static void fill(ManageClient client) {
        for (int i = 0; i < 500; i++) {
            client.post(
                    "/manage/v1/records/Buoy",
                    Map.of("code", "F-" + i, "tier", 1, "remarks", "x".repeat(3_900)));
        }
    }

    /** How large any file of the service may grow from now on, as a disk with little room. */
    private void limitFiles(ServiceProcess service, String bytes) throws Exception {
        Program.run(
                folder,
                List.of(
                        "prlimit",
                        "--pid",
                        Long.toString(service.pid()),
                        "--fsize=" + bytes + ":unlimited"));
    }
}
