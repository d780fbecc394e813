package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.AccessCalls;
import sandpiper.client.ConnectionCalls;
import sandpiper.client.DraftCalls;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import sandpiper.demo.DemoPackages;
import sandpiper.demo.TideTable;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.StartOptions;
import tools.jackson.databind.JsonNode;

/**
 * An outside service gives an empty instance codes and answers, with a key of two fields, line
 * items and localised text: well, slow, down and wrong.
 */
class ConnectionJourneyTest {
    private static final String PASSWORD = "spring and neap";
    private static final Map<String, String> FLEET =
            Map.of(
                    "fleet/package.yaml",
                    "package: fleet\nversion: 1\nlanguages: [en, de]\n",
                    "fleet/connections/tides.openapi.json",
                    DemoPackages.files().get("gullhaven/connections/tide-table.openapi.json"),
                    "fleet/connections/tides.yaml",
                    """
                    connection: tides
                    contract: tides.openapi.json
                    address: { setting: harbour-office }
                    lookups:
                      gauges: { call: GET /gauges, search: name, items: data, key: id, label: name, one: "GET /gauges/{id}", keep: PT1S }
                    calls:
                      high:
                        call: GET /gauges/{id}/tides
                        parameters: { gauge: { type: text, sent: id }, day: date }
                        returns: decimal
                        at: first.height
                    """,
                    "fleet/objects/voyage.yaml",
                    """
                    object: Voyage
                    key: [boat, day]
                    fields:
                      boat: { type: text, required: true }
                      day: { type: date, required: true }
                      gauge: { type: choice, from: tides.gauges }
                      remark: { type: text, localised: true }
                      height: { type: decimal, scale: 2 }
                    parts:
                      legs:
                        fields:
                          to: { type: choice, from: tides.gauges, required: true }
                    functions:
                      measure:
                        external: true
                        returns: decimal
                        body: |
                          let height = call tides.high(gauge, day)
                          set this.height = height
                          return height
                    handlers:
                      measureLater:
                        on: Voyage.changed
                        when: remark = "later" and height = null
                        then: |
                          let metres = call tides.high(gauge, day)
                          set height = metres
                    """,
                    "fleet/services/log.yaml",
                    """
                    service: log
                    version: 1
                    protocols: [rest, soap, odata]
                    resources:
                      voyages:
                        object: Voyage
                        create: { fields: [boat, day, gauge, remark, legs(to)] }
                        read: { fields: [boat, day, gauge, remark, height, legs(to)] }
                        update: { fields: [gauge, remark] }
                        query: { fields: [boat, gauge], filter: [gauge] }
                        calls: [measure]
                    """);

    @TempDir Path folder;
    private final HttpClient http = HttpClient.newHttpClient();
    private final Map<String, @Nullable String> before = new HashMap<>();
    private TideTable tides;
    private SandpiperServer.Running service;
    private ManageClient manage;
    private String credentials;

    @BeforeEach
    void begin() throws IOException {
        tides = TideTable.start(0);
        set("sandpiper.connections.allow", tides.place());
        set("sandpiper.connections.timeout", "PT1S");
        start();
        manage.draft().push(FLEET);
        manage.draft().release(new DraftCalls.Wanted("fleet", false, false, false, false));
        credentials =
                "office:"
                        + manage.access()
                                .createClient(
                                        new AccessCalls.NewClient(
                                                "office", List.of("log/*/*"), false, 100_000, null))
                                .value()
                                .secret();
    }

    private void set(String name, String value) {
        before.put(name, System.getProperty(name));
        System.setProperty(name, value);
    }

    private void start() {
        service = SandpiperServer.start(new StartOptions(folder.resolve("data.db"), 0, PASSWORD));
        manage = new ManageClient(service.address(), "admin", PASSWORD);
    }

    @AfterEach
    void end() {
        service.close();
        tides.close();
        http.close();
        before.forEach((name, value) -> {
            if (value == null) {
                System.clearProperty(name);
            } else {
                System.setProperty(name, value);
            }
        });
    }

    private void reach() {
        manage.connections()
                .reach(
                        "harbour-office",
                        new ConnectionCalls.ReachWanted(
                                tides.address(), "bearer", null, TideTable.TOKEN, null, null));
    }

    private HttpResponse<String> send(String method, String path, String type, String body)
            throws Exception {
        var request =
                HttpRequest.newBuilder(URI.create(service.address() + path))
                        .timeout(Duration.ofSeconds(30))
                        .header("Authorization", BasicSignIn.as(credentials))
                        .header("Content-Type", type)
                        .method(method, HttpRequest.BodyPublishers.ofString(body))
                        .build();
        return http.send(request, HttpResponse.BodyHandlers.ofString(StandardCharsets.UTF_8));
    }

    private HttpResponse<String> make(String body) throws Exception {
        return send("POST", "/api/log/v1/voyages", "application/json", body);
    }

    private static final String GULL =
            """
            {"boat": "Tern", "day": "2026-05-01", "gauge": "gull-head", "remark": {"de": "später"}, "legs": [{"to": "kelp-sound"}]}\
            """;
    private static final String PLACE = "/api/log/v1/voyages/Tern,2026-05-01";

    private JsonNode shown() {
        return manage.get("/manage/v1/records/Voyage/" + ManageClient.escape("Tern,2026-05-01"));
    }

    private static void await(BooleanSupplier until) {
        long end = System.nanoTime() + Duration.ofSeconds(30).toNanos();
        while (!until.getAsBoolean()) {
            assertThat(System.nanoTime()).as("waited long enough").isLessThan(end);
            LockSupport.parkNanos(Duration.ofMillis(20).toNanos());
        }
    }

    @Test
    void codesComeFromOutsideInEveryProtocol() throws Exception {
        var without = make(GULL);
        assertThat(without.statusCode()).isEqualTo(503);
        assertThat(without.headers().firstValue("Retry-After")).isPresent();
        assertThat(without.body()).contains("This instance has no address for it");

        reach();
        assertThat(make(GULL).statusCode()).isEqualTo(201);
        assertThat(make(GULL.replace("Tern", "Auk").replace("kelp-sound", "kelp")).body())
                .contains("\"pointer\":\"/legs/0/to\"", "Tides does not know \\\"kelp\\\".");
        assertThat(send("GET", PLACE, "text/plain", "").body())
                .contains("\"gauge\":\"gull-head\"", "\"to\":\"kelp-sound\"");

        var odata =
                send(
                        "POST",
                        "/odata/log/v1/voyages",
                        "application/json",
                        "{\"boat\": \"Auk\", \"day\": \"2026-05-01\", \"gauge\": \"tern-bank\"}");
        assertThat(odata.statusCode()).as(odata.body()).isEqualTo(201);
        var soap =
                send(
                        "POST",
                        "/soap/log/v1",
                        "text/xml",
                        "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\""
                                + " xmlns=\"urn:sandpiper:log:v1\"><s:Body><CreateVoyage><voyage>"
                                + "<boat>Gull</boat><day>2026-05-01</day><gauge>nowhere</gauge>"
                                + "</voyage></CreateVoyage></s:Body></s:Envelope>");
        assertThat(soap.body()).contains("Tides does not know \"nowhere\".");
        var found =
                send(
                        "GET",
                        "/api/log/v1/voyages?filter="
                                + ManageClient.escape("gauge = \"tern-bank\""),
                        "text/plain",
                        "");
        assertThat(found.body()).contains("\"boat\":\"Auk\"").doesNotContain("Tern");

        assertThat(shown().path("titles").toString())
                .contains("\"gauge\":\"Gull Head\"", "\"to\":\"Kelp Sound\"");
    }

    @Test
    void anOutageStopsNewValuesAndNothingElse() throws Exception {
        reach();
        make(GULL);
        tides.behave(TideTable.Mode.DOWN);
        // What was kept is over by now.
        LockSupport.parkNanos(Duration.ofMillis(1_100).toNanos());

        var refused =
                send("PATCH", PLACE, "application/merge-patch+json", "{\"gauge\": \"long-sand\"}");
        assertThat(refused.statusCode()).isEqualTo(503);
        assertThat(refused.body())
                .contains("Tides does not answer: It answered 503.", "\"pointer\":\"/gauge\"");
        var other =
                send(
                        "PATCH",
                        PLACE,
                        "application/merge-patch+json",
                        "{\"gauge\": \"gull-head\", \"remark\": {\"en\": \"calm\"}}");
        assertThat(other.statusCode()).as(other.body()).isEqualTo(200);

        for (var mode :
                List.of(TideTable.Mode.GARBLED, TideTable.Mode.LARGE, TideTable.Mode.MOVED)) {
            tides.behave(mode);
            var said = send("POST", PLACE + "/measure", "application/json", "{}");
            assertThat(said.statusCode()).as("%s: %s", mode, said.body()).isEqualTo(503);
            assertThat(said.body()).contains("Tides ");
        }
    }

    @Test
    void aHandlerWaitsForASlowServiceAndNobodyElseDoes() throws Exception {
        reach();
        make(GULL);
        tides.behave(TideTable.Mode.SLOW);
        int asked = tides.calls();
        send("PATCH", PLACE, "application/merge-patch+json", "{\"remark\": {\"en\": \"later\"}}");
        await(() -> tides.calls() > asked);

        for (int i = 0; i < 50; i++) {
            var answer = make("{\"boat\": \"B%d\", \"day\": \"2026-06-01\"}".formatted(i));
            assertThat(answer.statusCode()).isEqualTo(201);
        }

        tides.behave(TideTable.Mode.WELL);
        await(() -> shown().path("values").path("height").isNumber());
    }

    @Test
    void aFunctionAsksAndTheAccountTellsWhat() throws Exception {
        reach();
        make(GULL);

        var measured = send("POST", PLACE + "/measure", "application/json", "{}");
        assertThat(measured.statusCode()).as(measured.body()).isEqualTo(200);
        assertThat(measured.body()).contains("\"result\":");
        tides.behave(TideTable.Mode.DOWN);
        var refused = send("POST", PLACE + "/measure", "application/json", "{}");
        var trace = refused.headers().firstValue("Sandpiper-Trace").orElse("");

        assertThat(trace).as(refused.body()).isNotEmpty();
        assertThat(manage.get("/manage/v1/traces/" + trace).toString())
                .contains("\"ASK\"", "tides.high(gull-head, 2026-05-01)", "It answered 503.")
                .doesNotContain(TideTable.TOKEN);
        await(() ->
                manage.get("/manage/v1/traffic?days=1")
                        .path("calls")
                        .toString()
                        .contains("outgoing"));
        assertThat(manage.get("/manage/v1/traffic?days=1").path("failed").toString())
                .contains("GET /gauges/{id}/tides")
                .doesNotContain(TideTable.TOKEN);
    }

    @Test
    void howAServiceIsReachedIsKeptSealedAndOnlyForOperators() throws Exception {
        reach();
        assertThat(manage.get("/manage/v1/connections").toString())
                .contains(tides.address(), "\"hasSecret\":true")
                .doesNotContain(TideTable.TOKEN);
        assertThat(manage.get("/manage/v1/access-log").toString())
                .contains("changed how a service outside is reached", "harbour-office")
                .doesNotContain(TideTable.TOKEN);
        assertThat(
                        new String(
                                java.nio.file.Files.readAllBytes(folder.resolve("data.db")),
                                StandardCharsets.ISO_8859_1))
                .doesNotContain(TideTable.TOKEN);

        var elsewhere =
                new ConnectionCalls.ReachWanted(
                        "https://thief.example", "bearer", null, null, null, null);
        assertThatThrownBy(() -> manage.connections().reach("harbour-office", elsewhere))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("the secret must be given again");
        var inside =
                new ConnectionCalls.ReachWanted(
                        "http://127.0.0.1:1", "none", null, null, null, null);
        assertThatThrownBy(() -> manage.connections().reach("harbour-office", inside))
                .hasMessageContaining("sandpiper.connections.allow");
        assertThat(send("GET", "/manage/v1/connections", "text/plain", "").statusCode())
                .isIn(401, 403);

        service.close();
        start();
        assertThat(make(GULL).statusCode()).isEqualTo(201);
        manage.connections().forget("harbour-office");
        assertThat(make(GULL.replace("Tern", "Auk").replace("gull-head", "long-sand")).statusCode())
                .isEqualTo(503);
    }

    @Test
    void aDocumentIsReadComparedAndCutDown() {
        var text = FLEET.get("fleet/connections/tides.openapi.json");
        var newer =
                text.replace("\"first\": { \"$ref\": \"#/components/schemas/HighWater\" },", "")
                        .replace("\"/currencies\"", "\"/money\"");

        var excerpt =
                manage.connections()
                        .excerpt("tides", newer.getBytes(StandardCharsets.UTF_8))
                        .value();

        assertThat(excerpt.differences())
                .anyMatch(one -> one.equals("GET /gauges/{id}/tides: first of the answer is gone."))
                .noneMatch(one -> one.contains("currencies"));
        assertThat(excerpt.text()).contains("/gauges/{id}/tides").doesNotContain("/money");
        assertThatThrownBy(() -> manage.connections().excerpt("tides", new byte[] {'{'}))
                .hasMessageContaining("This is not JSON");
    }
}
