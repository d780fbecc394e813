package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.DriverManager;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.ManageClient;
import sandpiper.demo.Demo;

/** Callers without credentials stop nobody, and a data file that is lost or damaged is noticed. */
class StandingFirmTest {
    private static final int SLOW = 500;
    private static final int HOSTILE = 16;

    /** More are tried with {@code -Dsandpiper.names=100000}. */
    private static final int NAMES = Integer.getInteger("sandpiper.names", 2_000);

    private static final String OBJECT =
            """
            object: Buoy
            key: code
            fields:
              code: { type: text, length: 20 }
              depth: { type: integer }
            """;
    private static final String SERVICE =
            """
            service: chart
            version: 1
            protocols: [rest, odata, soap]
            resources:
              buoys: { object: Buoy, create: { fields: all }, read: { fields: all }, query: { fields: all, filter: all } }
            """;

    @TempDir static Path shared;
    private static ServiceProcess service;
    private static String who = "";

    @TempDir Path folder;
    private Path data;
    private final HttpClient http =
            HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();

    @BeforeAll
    static void startShared() throws IOException {
        service = ServiceProcess.start(shared.resolve("data.db"), Map.of());
        who = release(service);
    }

    @AfterAll
    static void stopShared() {
        service.close();
    }

    @BeforeEach
    void place() {
        data = folder.resolve("data.db");
    }

    private ServiceProcess start(String... more) throws IOException {
        return ServiceProcess.start(data, Map.of(), more);
    }

    private static String release(ServiceProcess service) {
        var manage = service.client();
        manage.post(
                "/manage/v1/draft/push",
                Map.of(
                        "files",
                        Map.of(
                                "chart/package.yaml", "package: chart\nversion: 1\n",
                                "chart/objects/buoy.yaml", OBJECT,
                                "chart/services/chart.yaml", SERVICE)));
        manage.post("/manage/v1/releases", Map.of("note", "Buoys"));
        var made =
                manage.post(
                        "/manage/v1/clients",
                        Map.of("name", "pilot", "grants", List.of("chart/*/*")));
        return "pilot:" + made.path("secret").asString();
    }

    private HttpResponse<String> call(
            ServiceProcess service,
            String who,
            String method,
            String path,
            String type,
            String body)
            throws Exception {
        var request =
                HttpRequest.newBuilder(URI.create(service.address() + path))
                        .timeout(Duration.ofSeconds(30))
                        .method(method, HttpRequest.BodyPublishers.ofString(body));
        if (!body.isEmpty()) {
            request.header("Content-Type", type);
        }
        if (!who.isEmpty()) {
            request.header("Authorization", BasicSignIn.as(who));
        }
        return http.send(request.build(), BodyHandlers.ofString());
    }

    @Test
    void slowBodiesKeepNobodyWaiting() throws Exception {
        var port = URI.create(service.address()).getPort();
        var slow = new ArrayList<Socket>();
        var doors =
                List.of(
                        "/soap/chart/v1",
                        "/manage/v1/session",
                        "/oauth2/token",
                        "/api/chart/v1/buoys");
        for (int i = 0; i < SLOW; i++) {
            var socket = new Socket("127.0.0.1", port);
            socket.getOutputStream()
                    .write(
                            "POST %s HTTP/1.1\r\nHost: x\r\nContent-Type: text/xml\r\nContent-Length: 5000\r\n\r\n<"
                                    .formatted(doors.get(i % doors.size()))
                                    .getBytes(StandardCharsets.US_ASCII));
            slow.add(socket);
        }
        long longest = 0;
        for (int i = 0; i < 50; i++) {
            long begun = System.nanoTime();
            assertThat(call(service, "", "GET", "/manage/v1/health", "", "").statusCode())
                    .isEqualTo(200);
            assertThat(call(service, who, "GET", "/api/chart/v1/buoys", "", "").statusCode())
                    .isEqualTo(200);
            longest = Math.max(longest, System.nanoTime() - begun);
        }
        assertThat(Duration.ofNanos(longest)).isLessThan(Duration.ofSeconds(2));
        for (var socket : slow) {
            socket.close();
        }
    }

    @Test
    void hostileMessagesAndFiltersEndInASentence() throws Exception {
        try (var callers = Executors.newVirtualThreadPerTaskExecutor()) {
            var bomb =
                    "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\"><s:Body>"
                            + "<b/>".repeat(1_200_000)
                            + "</s:Body></s:Envelope>";
            var tasks = new ArrayList<java.util.concurrent.Callable<Integer>>();
            for (int i = 0; i < HOSTILE; i++) {
                tasks.add(() ->
                        call(service, who, "POST", "/soap/chart/v1", "text/xml", bomb)
                                .statusCode());
            }
            for (var answer : callers.invokeAll(tasks)) {
                assertThat(answer.get()).isIn(413, 503);
            }
            for (var filter :
                    List.of(
                            "code = if matches(\"a\", \"((za{100}){100}){100}\") then \"x\" else"
                                    + " \"y\"",
                            "code = {a: \"aaaaaaaa\"" + doublings() + "}.z",
                            "depth = " + "9".repeat(200),
                            "depth in [" + "[".repeat(200) + "1..2" + "]".repeat(200) + "]")) {
                var query = java.net.URLEncoder.encode(filter, StandardCharsets.UTF_8);
                for (var door :
                        List.of(
                                "/api/chart/v1/buoys?filter=",
                                "/odata/chart/v1/buoys?$filter=".replace("$", "%24"))) {
                    assertThat(call(service, who, "GET", door + query, "", "").statusCode())
                            .as("%s%s", door, filter)
                            .isLessThan(500);
                }
            }
            for (int i = 0; i < 300; i++) {
                var name = "n".repeat(10_000) + i;
                assertThat(
                                call(
                                                service,
                                                "",
                                                "POST",
                                                "/manage/v1/session",
                                                "application/json",
                                                "{\"name\":\"" + name + "\",\"password\":\"x\"}")
                                        .statusCode())
                        .isIn(403, 422);
            }
            assertThat(call(service, who, "GET", "/api/chart/v1/buoys", "", "").statusCode())
                    .isEqualTo(200);
        }
    }

    @Test
    void namesThatFailToSignInTakeNoRoom() throws Exception {
        // From elsewhere, so that the address of the other tests stays open.
        var elsewhere =
                HttpClient.newBuilder()
                        .version(HttpClient.Version.HTTP_1_1)
                        .localAddress(InetAddress.getByName("127.0.0.2"))
                        .build();
        long before = heap();
        try (var callers = Executors.newFixedThreadPool(4)) {
            var tries = new ArrayList<java.util.concurrent.Callable<Integer>>();
            for (int i = 0; i < NAMES; i++) {
                var who = "n".repeat(50) + i + ":wrong";
                var request =
                        HttpRequest.newBuilder(URI.create(service.address() + "/manage/v1/status"))
                                .header("Authorization", BasicSignIn.as(who))
                                .build();
                tries.add(() -> elsewhere.send(request, BodyHandlers.discarding()).statusCode());
            }
            for (var one : callers.invokeAll(tries)) {
                assertThat(one.get()).isIn(401, 429);
            }
        }
        assertThat(heap() - before).as("megabytes more").isLessThan(50);
    }

    /** Live megabytes, after everything that is not needed is gone. */
    private static long heap() throws Exception {
        var jcmd = Path.of(System.getProperty("java.home"), "bin", "jcmd").toString();
        var pid = String.valueOf(service.pid());
        Program.run(shared, List.of(jcmd, pid, "GC.run"));
        var said = Program.run(shared, List.of(jcmd, pid, "GC.heap_info"));
        var used = java.util.regex.Pattern.compile("used (\\d+)K").matcher(said);
        assertThat(used.find()).as(said).isTrue();
        return Long.parseLong(used.group(1)) / 1_024;
    }

    private static String doublings() {
        var text = new StringBuilder();
        for (char c = 'b'; c <= 'z'; c++) {
            text.append(", %c: %c + %c".formatted(c, (char) (c - 1), (char) (c - 1)));
        }
        return text.toString();
    }

    @Test
    void whatIsMalformedIsAProblemAndNothingElse() throws Exception {
        for (var path :
                List.of(
                        "/anything;%zz",
                        "/api/chart/v1/buoys?filter=%FF",
                        "/manage/v1/traces?limit=%ED%A0%BD",
                        "/odata/chart/v1/buoys?%24filter=%FF")) {
            assertThat(
                            raw(
                                    service,
                                    "GET "
                                            + path
                                            + " HTTP/1.1\r\n"
                                            + "Host: x\r\n"
                                            + "Connection: close\r\n\r\n"))
                    .as(path)
                    .startsWith("HTTP/1.1 400")
                    .contains("json")
                    .doesNotContain("<html");
        }
        assertThat(raw(service, "GET /" + "a".repeat(20_000) + " HTTP/1.1\r\nHost: x\r\n\r\n"))
                .startsWith("HTTP/1.1 4")
                .doesNotContain("<html");
        assertThat(raw(service, "RUBBISH\r\n\r\n")).doesNotContain("<html", "HTTP/1.1 5");
        for (var query :
                List.of(
                        "$filter=" + "(".repeat(1_000) + "1 eq 1" + ")".repeat(1_000),
                        "$filter=@state in ('Open')",
                        "$apply=aggregate(depth with sum as y)",
                        "$search=Lab\"",
                        "$search=")) {
            var encoded = query.replace("$", "%24").replace(" ", "%20").replace("\"", "%22");
            assertThat(call(service, who, "GET", "/odata/chart/v1/buoys?" + encoded, "", ""))
                    .satisfies(answer -> {
                        assertThat(answer.statusCode()).as(query).isIn(200, 400, 501);
                        assertThat(answer.body()).doesNotContain("Exception", "tokenizer");
                    });
        }
        var chain = "code%20eq%20'a'" + "%20or%20code%20eq%20'a'".repeat(99);
        assertThat(
                        call(
                                        service,
                                        who,
                                        "GET",
                                        "/odata/chart/v1/buoys?%24filter=" + chain,
                                        "",
                                        "")
                                .statusCode())
                .isEqualTo(200);
        assertThat(
                        call(
                                        service,
                                        "",
                                        "POST",
                                        "/oauth2/token",
                                        "application/x-www-form-urlencoded",
                                        "grant_type=%FF")
                                .body())
                .contains("invalid_request");
        assertThat(
                        call(
                                        service,
                                        who,
                                        "POST",
                                        "/oauth2/token?grant_type=client_credentials",
                                        "application/x-www-form-urlencoded",
                                        "grant_type=client_credentials")
                                .statusCode())
                .isEqualTo(400);
    }

    private static String raw(ServiceProcess service, String request) throws IOException {
        try (var socket = new Socket("127.0.0.1", URI.create(service.address()).getPort())) {
            socket.setSoTimeout(10_000);
            socket.getOutputStream().write(request.getBytes(StandardCharsets.ISO_8859_1));
            return new String(socket.getInputStream().readNBytes(4_000), StandardCharsets.UTF_8);
        } catch (java.net.SocketTimeoutException e) {
            return "";
        }
    }

    @Test
    void aDamagedFileIsNotServedAndOneThatIsGoneIsNoticed() throws Exception {
        String pilot;
        try (var first = start()) {
            pilot = release(first);
            for (int i = 0; i < 400; i++) {
                assertThat(make(first, pilot, "B-" + i)).isEqualTo(201);
            }
            first.stop();
        }
        assertThat(Files.exists(Path.of(data + "-wal"))).isFalse();
        var sound = Files.readAllBytes(data);
        try (var file = new RandomAccessFile(data.toFile(), "rw")) {
            file.seek(file.length() / 2);
            file.write(new byte[9_000]);
        }
        assertThatThrownBy(this::start).hasMessageContaining("restore a backup");

        Files.write(data, sound);
        try (var second = start()) {
            assertThat(make(second, pilot, "C-1")).isEqualTo(201);
            Files.delete(data);
            Thread.sleep(1_000);
            assertThat(make(second, pilot, "C-2")).isEqualTo(503);
            assertThat(call(second, "", "GET", "/manage/v1/ready", "", ""))
                    .satisfies(answer -> {
                        assertThat(answer.statusCode()).isEqualTo(503);
                        assertThat(answer.body()).contains("was deleted while the service runs");
                    });
        }
        assertThatThrownBy(this::start).hasMessageContaining("serve --new");
    }

    private int make(ServiceProcess at, String client, String code) throws Exception {
        return call(
                        at,
                        client,
                        "POST",
                        "/api/chart/v1/buoys",
                        "application/json",
                        "{\"code\":\"%s\"}".formatted(code))
                .statusCode();
    }

    @Test
    void oneServiceHasTheFileAndItIsItsOwnersAlone() throws Exception {
        var file = shared.resolve("data.db");
        // FileWatchTest tries every name a file can have.
        var link = Files.createSymbolicLink(folder.resolve("link.db"), file);
        assertThatThrownBy(() -> ServiceProcess.start(link, Map.of()))
                .hasMessageContaining("in use by another service")
                .hasMessageContaining("process " + service.pid());
        for (var name : List.of(file, Path.of(file + "-wal"), Path.of(file + ".key"))) {
            assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(name)))
                    .isEqualTo("rw-------");
        }
    }

    @Test
    void aCopyOfTheDataSignsNobodyIn() throws Exception {
        var token =
                ManageClient.read(
                                call(
                                                service,
                                                who,
                                                "POST",
                                                "/oauth2/token",
                                                "application/x-www-form-urlencoded",
                                                "grant_type=client_credentials")
                                        .body())
                        .path("access_token")
                        .asString();
        assertThat(bearer(service, token)).isEqualTo(200);
        try (var copy = DriverManager.getConnection("jdbc:sqlite:" + shared.resolve("data.db"));
                var sql = copy.createStatement();
                var rows = sql.executeQuery("select name, value from sandpiper_setting")) {
            while (rows.next()) {
                assertThat(bearer(service, forged(rows.getString(2)))).isEqualTo(401);
            }
        }
        service.client().post("/manage/v1/keys/renew", Map.of());
        assertThat(bearer(service, token)).isEqualTo(401);
    }

    private int bearer(ServiceProcess service, String token) throws Exception {
        return http.send(
                        HttpRequest.newBuilder(
                                        URI.create(service.address() + "/api/chart/v1/buoys"))
                                .header("Authorization", "Bearer " + token)
                                .build(),
                        BodyHandlers.discarding())
                .statusCode();
    }

    private static String forged(String key) throws Exception {
        var text = Base64.getUrlEncoder().withoutPadding();
        var head = text.encodeToString("{\"alg\":\"HS256\"}".getBytes(StandardCharsets.UTF_8));
        var body =
                text.encodeToString(
                        "{\"iss\":\"sandpiper\",\"sub\":\"pilot\",\"aud\":\"sandpiper-services\",\"exp\":%d}"
                                .formatted(System.currentTimeMillis() / 1_000 + 300)
                                .getBytes(StandardCharsets.UTF_8));
        var mac = javax.crypto.Mac.getInstance("HmacSHA256");
        mac.init(
                new javax.crypto.spec.SecretKeySpec(
                        key.getBytes(StandardCharsets.UTF_8), "HmacSHA256"));
        var sealed = mac.doFinal((head + "." + body).getBytes(StandardCharsets.UTF_8));
        return head + "." + body + "." + text.encodeToString(sealed);
    }

    @Test
    void passwordsAreLongAndNotCommonAndTriesAreCounted() throws Exception {
        var manage = service.client();
        assertThatThrownBy(() -> user(manage, "ann", "password1"))
                .hasMessageContaining("many people have");
        assertThatThrownBy(() -> user(manage, "ann.moor", "ann.moor-2026"))
                .hasMessageContaining("name it is for");
        var password = "\u00fcber ".repeat(30);
        user(manage, "ann", password);
        assertThat(status(service, "ann:" + password)).isNotEqualTo(401);
        assertThat(atOnce("ann:" + password)).isEmpty();
        assertThat(atOnce("pilot-two:a secret somebody chose")).isEmpty();
        for (int i = 0; i < 5; i++) {
            assertThat(status(service, "ann:wrong" + i)).isEqualTo(401);
        }
        assertThat(status(service, "ann:wrong")).isEqualTo(429);
        // Who was right a moment ago goes on.
        assertThat(status(service, "ann:" + password)).isNotEqualTo(429);
        assertThatThrownBy(() ->
                        manage.patch(
                                "/manage/v1/users/" + Demo.ADMIN,
                                Map.of("duties", List.of("ACCESS")),
                                null))
                .hasMessageContaining("your own rights");
        user(manage, "bea", "a long sentence of hers");
        var log = manage.get("/manage/v1/access-log").toString();
        assertThat(log).contains("signed in", "sign-in refused", "sign-in locked");
        assertThatThrownBy(() ->
                        manage.post(
                                "/manage/v1/clients", Map.of("name", "bea", "grants", List.of())))
                .hasMessageContaining("name of a user already");
    }

    private static void user(ManageClient manage, String name, String password) {
        manage.post(
                "/manage/v1/users",
                Map.of("name", name, "password", password, "duties", List.of("DESIGN")));
    }

    private int status(ServiceProcess service, String who) throws Exception {
        return call(service, who, "GET", "/manage/v1/status", "", "").statusCode();
    }

    /** What many calls at the same time, with right credentials, are refused with. */
    private List<Integer> atOnce(String who) throws Exception {
        var path = who.startsWith("pilot") ? "/api/chart/v1/buoys" : "/manage/v1/status";
        if (who.startsWith("pilot")) {
            service.client()
                    .post(
                            "/manage/v1/clients",
                            Map.of(
                                    "name",
                                    "pilot-two",
                                    "secret",
                                    who.substring(who.indexOf(':') + 1),
                                    "grants",
                                    List.of("chart/*/*")));
        }
        var refused = new ArrayList<Integer>();
        try (var callers = Executors.newVirtualThreadPerTaskExecutor()) {
            var calls = new ArrayList<java.util.concurrent.Callable<Integer>>();
            for (int i = 0; i < 32; i++) {
                calls.add(() -> call(service, who, "GET", path, "", "").statusCode());
            }
            for (var done : callers.invokeAll(calls)) {
                if (done.get() == 401 || done.get() == 429 || done.get() >= 500) {
                    refused.add(done.get());
                }
            }
        }
        return refused;
    }
}
