package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.CookieManager;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.AccessCalls;
import sandpiper.demo.Demo;

/**
 * A draft is tried on a copy that is served beside the live service, with what was asked of that
 * before; the live service notices nothing.
 */
class RehearsalJourneyTest {
    private static final String ROPE =
            """
            object: Rope
            key: [coil, piece]
            fields:
              coil: { type: text, required: true }
              piece: { type: integer, required: true }
              metres: { type: decimal, scale: 1 }
              label: { type: text, localised: true }
              cutFrom: { type: reference, to: Rope }
              price: { type: decimal, scale: 2, formula: metres * 2 }
            """;
    private static final String CHECK =
            """
            checks:
              - name: shortEnough
                that: metres <= 20
                say: "A rope has at most 20 metres, not {metres}."
                at: metres
            """;
    private static final String SERVICE =
            """
            service: ropes
            version: 1
            protocols: [rest, odata, soap]
            resources:
              ropes:
                object: Rope
                create: { fields: [all] }
                read: { fields: [all] }
                query: { fields: [all] }
            """;
    private static final String REQUIREMENTS =
            """
            requirements:
              R1:
                text: Ropes of any length are kept.
                examples:
                  long:
                    when: { create: Rope, values: { coil: C, piece: 1, metres: 25 } }
                    then: { values: { price: 50 } }
            """;

    /** More are done with {@code -Dsandpiper.kills=30}. */
    private static final int KILLS = Integer.getInteger("sandpiper.kills", 1);

    /** Milliseconds within which a rehearsal of a few hundred records is made. */
    private static final int KILLED_WITHIN = 1_500;

    @TempDir private Path folder;
    private final HttpClient http = HttpClient.newHttpClient();
    private final AtomicInteger heard = new AtomicInteger();
    private HttpServer receiver;
    private ServiceProcess service;
    private String credentials;

    @BeforeEach
    void begin() throws Exception {
        receiver = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        receiver.createContext(
                "/",
                exchange -> {
                    exchange.getRequestBody().readAllBytes();
                    heard.incrementAndGet();
                    exchange.sendResponseHeaders(204, -1);
                    exchange.close();
                });
        receiver.start();
        service = start();
        push(ROPE, REQUIREMENTS);
        assertThat(CommandRun.of(service, "release")).contains("Release 1 is live");
        credentials =
                "yard:"
                        + service.client()
                                .access()
                                .createClient(
                                        new AccessCalls.NewClient(
                                                "yard", List.of("ropes/*/*"), false, 100_000, null))
                                .value()
                                .secret();
    }

    private ServiceProcess start() throws IOException {
        return ServiceProcess.start(
                folder.resolve("data.db"),
                Map.of(
                        "SANDPIPER_RECORDING_BYTES",
                        "1MB",
                        "SANDPIPER_WEBHOOKS_ALLOW",
                        "127.0.0.1:" + receiver.getAddress().getPort()));
    }

    @AfterEach
    void end() {
        service.close();
        receiver.stop(0);
        http.close();
    }

    private void push(String object, String requirements) {
        service.client()
                .draft()
                .push(
                        Map.of(
                                "ropes/package.yaml",
                                "package: ropes\nversion: 1\nlanguages: [en, de]\n",
                                "ropes/objects/rope.yaml",
                                object,
                                "ropes/services/ropes.yaml",
                                SERVICE,
                                "ropes/requirements/r.yaml",
                                requirements));
    }

    private HttpResponse<String> send(HttpRequest.Builder request, String as) throws Exception {
        return http.send(
                request.header("Authorization", BasicSignIn.as(as))
                        .header("Content-Type", "application/json")
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private HttpRequest.Builder at(String path) {
        return HttpRequest.newBuilder(URI.create(service.address() + path));
    }

    private HttpResponse<String> create(String place, String coil, int piece, double metres)
            throws Exception {
        return send(
                at(place + "/api/ropes/v1/ropes")
                        .POST(
                                BodyPublishers.ofString(
                                        """
                                        {"coil": "%s", "piece": %d, "metres": %s, "label": {"en": "Rope", "de": "Seil"}}\
                                        """
                                                .formatted(coil, piece, metres))),
                credentials);
    }

    private String get(String path) throws Exception {
        return send(at(path).GET(), credentials).body();
    }

    private String session(HttpClient browser, String place) throws Exception {
        var came =
                browser.send(
                        at(place + "/manage/v1/session").build(),
                        HttpResponse.BodyHandlers.ofString());
        return came.statusCode() + " " + came.body();
    }

    private List<String> files() throws IOException {
        try (var files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString()).toList();
        }
    }

    @Test
    @Tag("each-engine")
    void whatWouldBeAnsweredOtherwiseIsKnownBeforeTheRelease() throws Exception {
        for (int i = 0; i < 9; i++) {
            assertThat(create("", "A/b", i, i * 3).statusCode()).isEqualTo(201);
        }
        assertThat(create("", "A/b", 1, 5).statusCode()).isEqualTo(409);
        assertThat(get("/odata/ropes/v1/ropes?$top=3")).contains("\"price\":6.00");
        var done = new AtomicBoolean();
        var answers = new ArrayList<Integer>();
        try (var others = Executors.newSingleThreadExecutor()) {
            var working =
                    others.submit(() -> {
                        for (int i = 0; !done.get(); i++) {
                            // All of them are replayed.
                            Thread.sleep(40);
                            answers.add(create("", "live", i, 1).statusCode());
                            answers.add(
                                    send(at("/api/ropes/v1/ropes?limit=2").GET(), credentials)
                                            .statusCode());
                        }
                        return true;
                    });
            String said;
            try {
                push(ROPE.replace("metres * 2", "metres * 3") + CHECK, REQUIREMENTS);
                said = CommandRun.of(service, "rehearse");
            } finally {
                done.set(true);
            }
            assertThat(working.get()).isTrue();
            assertThat(said)
                    .contains(
                            "R1, Long: It is refused: A rope has at most 20 metres",
                            "ropes v1 ropes query, OData: 200 -> 200 with another value[].price",
                            "422 A rope has at most 20 metres, not",
                            "The copy is served at %s/rehearsal".formatted(service.address()),
                            "exit 1");
        }
        assertThat(answers).isNotEmpty().containsOnly(200, 201);

        // The other rule is there, and only there.
        assertThat(create("/rehearsal", "copy", 1, 21).statusCode()).isEqualTo(422);
        var made = create("/rehearsal", "copy", 2, 20);
        assertThat(made.statusCode()).isEqualTo(201);
        var location = made.headers().firstValue("Location").orElseThrow();
        assertThat(location).startsWith("/rehearsal/api/ropes/v1/ropes/");
        assertThat(get(location)).contains("\"price\":60.00");
        assertThat(get("/rehearsal/odata/ropes/v1/ropes?$top=1"))
                .contains(service.address() + "/rehearsal/odata/ropes/v1/$metadata");
        assertThat(get("/rehearsal/soap/ropes/v1?wsdl"))
                .contains(service.address() + "/rehearsal/soap/ropes/v1");
        assertThat(create("", "live", -1, 21).statusCode()).isEqualTo(201);
        assertThat(get(location.replace("/rehearsal", ""))).contains("\"status\":404");

        // Mended, the release goes as it was told.
        push(ROPE.replace("metres * 2", "metres * 3"), REQUIREMENTS.replace("50", "75"));
        assertThat(CommandRun.of(service, "rehearse"))
                .doesNotContain("at most 20 metres", "do not hold")
                .contains("exit 0");
        assertThat(CommandRun.of(service, "release")).contains("Release 2 is live");
        assertThat(CommandRun.of(service, "rehearse", "--end")).contains("exit 0");
        assertThat(get("/rehearsal/api/ropes/v1/ropes")).contains("No rehearsal is served");
        assertThat(files()).noneMatch(file -> file.matches(".*(rehearsal|before).*"));
    }

    @Test
    void nothingGoesOutAndNobodyMoreComesIn() throws Exception {
        var admin = "%s:%s".formatted(Demo.ADMIN, Demo.PASSWORD);
        var webhook =
                """
                {"name": "yard", "address": "http://127.0.0.1:%d/", "events": ["Rope.created"]}\
                """
                        .formatted(receiver.getAddress().getPort());
        assertThat(
                        send(
                                        at("/manage/v1/webhooks")
                                                .POST(BodyPublishers.ofString(webhook)),
                                        admin)
                                .statusCode())
                .isLessThan(300);
        push(ROPE + CHECK, "requirements: {}\n");
        assertThat(CommandRun.of(service, "rehearse")).contains("exit 0");

        assertThat(create("/rehearsal", "copy", 1, 1).statusCode()).isEqualTo(201);
        for (int i = 0; i < 50; i++) {
            if (send(at("/rehearsal/manage/v1/deliveries").GET(), admin).body().contains("yard")) {
                break;
            }
            Thread.sleep(100);
        }
        assertThat(send(at("/rehearsal/manage/v1/deliveries").GET(), admin).body())
                .contains("\"target\":\"webhook yard\"", "\"state\":\"waiting\"", "\"tries\":0");
        assertThat(create("", "live", 1, 1).statusCode()).isEqualTo(201);
        for (int i = 0; i < 100 && heard.get() == 0; i++) {
            Thread.sleep(50);
        }
        assertThat(heard).hasValue(1);

        // What is done in the service itself is not done here.
        assertThat(CommandRun.of(service, "records", "find", "Rope")).contains("live");
        var refused =
                send(
                        at("/rehearsal/manage/v1/releases").POST(BodyPublishers.ofString("{}")),
                        admin);
        assertThat(refused.statusCode()).isEqualTo(409);
        assertThat(refused.body()).contains("This is a rehearsal");

        // A secret that is taken back is of no use on the copy.
        assertThat(CommandRun.of(service, "clients", "remove", "yard")).contains("exit 0");
        assertThat(send(at("/rehearsal/api/ropes/v1/ropes").GET(), credentials).statusCode())
                .isEqualTo(401);

        // Whoever tries passwords has the tries of one door, not of two.
        for (int i = 0; i < 5; i++) {
            assertThat(
                            send(at("/rehearsal/manage/v1/status").GET(), Demo.ADMIN + ":" + i)
                                    .statusCode())
                    .isEqualTo(401);
        }
        assertThat(send(at("/manage/v1/status").GET(), Demo.ADMIN + ":x").statusCode())
                .isEqualTo(429);
    }

    @Test
    void whoIsSignedInIsSignedInOnTheCopyAndAKillLeavesNothing() throws Exception {
        push(ROPE + CHECK, "requirements: {}\n");
        assertThat(CommandRun.of(service, "rehearse")).contains("exit 0");
        var cookies = new CookieManager();
        try (var browser = HttpClient.newBuilder().cookieHandler(cookies).build()) {
            assertThat(session(browser, "/rehearsal")).startsWith("401");
            assertThat(session(browser, "")).startsWith("401");
            var token =
                    cookies.getCookieStore().getCookies().stream()
                            .filter(cookie -> cookie.getName().equals("XSRF-TOKEN"))
                            .findFirst()
                            .orElseThrow();
            var signIn =
                    at("/manage/v1/session")
                            .header("Content-Type", "application/json")
                            .header("X-XSRF-TOKEN", token.getValue())
                            .POST(
                                    BodyPublishers.ofString(
                                            """
                                            {"name": "%s", "password": "%s"}\
                                            """
                                                    .formatted(Demo.ADMIN, Demo.PASSWORD)))
                            .build();
            assertThat(browser.send(signIn, HttpResponse.BodyHandlers.ofString()).statusCode())
                    .isEqualTo(200);
            assertThat(session(browser, "")).doesNotContain("\"rehearsal\":{");
            assertThat(session(browser, "/rehearsal"))
                    .contains("\"name\":\"admin\"", "\"changes\":2", "\"by\":\"admin\"");
            var signOut =
                    at("/manage/v1/session").header("X-XSRF-TOKEN", token.getValue()).DELETE();
            browser.send(signOut.build(), HttpResponse.BodyHandlers.ofString());
            assertThat(session(browser, "/rehearsal")).startsWith("401");
        }

        service.kill();
        assertThat(files()).anyMatch(file -> file.contains("rehearsal"));
        service.close();
        service = start();
        assertThat(files()).noneMatch(file -> file.contains("rehearsal"));
        assertThat(get("/rehearsal/api/ropes/v1/ropes")).contains("No rehearsal is served");
        assertThat(create("", "live", 7, 1).statusCode()).isEqualTo(201);
    }

    private HttpResponse<String> rehearse() throws Exception {
        return send(
                at("/manage/v1/rehearsal").POST(BodyPublishers.noBody()),
                Demo.ADMIN + ":" + Demo.PASSWORD);
    }

    @Test
    void aSecondIsRefusedAndAKillWhileItIsMadeLeavesNothing() throws Exception {
        for (int i = 0; i < 300; i++) {
            assertThat(create("", "A", i, 5).statusCode()).isEqualTo(201);
        }
        push(ROPE.replace("metres * 2", "metres * 3"), "requirements: {}\n");
        var random = new Random(7);
        for (int kill = 0; kill < KILLS; kill++) {
            assertThat(rehearse().statusCode()).isEqualTo(202);
            var second = rehearse();
            assertThat(second.statusCode()).as(second.body()).isEqualTo(409);
            assertThat(second.body()).contains("A rehearsal of admin is under way");
            // The first steps are the shortest.
            Thread.sleep((long) (KILLED_WITHIN * Math.pow(random.nextDouble(), 4)));
            var reached = service.client().draft().rehearsal().value().stage();
            service.kill();
            service.close();
            service = start();
            assertThat(files())
                    .as("killed while %s", reached)
                    .noneMatch(file -> file.contains("rehearsal") || file.contains("before"));
            assertThat(get("/api/ropes/v1/ropes?count=true&limit=1"))
                    .as("killed while %s", reached)
                    .contains("\"count\":300", "\"price\":10.00");
            assertThat(CommandRun.of(service, "status")).contains("release 1");
        }
    }
}
