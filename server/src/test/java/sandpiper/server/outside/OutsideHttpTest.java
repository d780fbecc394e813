package sandpiper.server.outside;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.math.BigDecimal;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.Mockito;
import sandpiper.engine.port.OutsideStorage.Reach;
import sandpiper.server.outgoing.OutgoingHttp;
import sandpiper.server.outgoing.Targets;
import sandpiper.server.security.SecretCipher;

/** Against a service on the loopback address that answers as it is told. */
class OutsideHttpTest {
    private static final int LARGEST = 2_000;

    private final List<String> heard = Collections.synchronizedList(new ArrayList<>());
    private final CountDownLatch end = new CountDownLatch(1);
    private final MovingClock clock = new MovingClock();
    private HttpServer server;
    private HttpServer other;
    private OutgoingHttp http;
    private OutsideHttp outside;

    private static final class MovingClock extends Clock {
        private Instant now = Instant.parse("2026-05-01T10:00:00Z");

        @Override
        public ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            return this;
        }

        @Override
        public Instant instant() {
            return now;
        }
    }

    @BeforeEach
    void start() throws IOException {
        server = served();
        other = served();
        var targets =
                new Targets(List.of(place(server), place(other)), "sandpiper.connections.allow");
        http = new OutgoingHttp(targets, Duration.ofSeconds(1), "test");
        var cipher = Mockito.mock(SecretCipher.class);
        Mockito.when(cipher.open("sealed")).thenReturn(Optional.of("low tide"));
        outside = new OutsideHttp(http, cipher, clock, LARGEST);
    }

    private static HttpServer served() throws IOException {
        var made = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        made.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        made.start();
        return made;
    }

    private static String place(HttpServer of) {
        return "127.0.0.1:" + of.getAddress().getPort();
    }

    @AfterEach
    void stop() throws IOException {
        end.countDown();
        http.close();
        server.stop(0);
        other.stop(0);
    }

    private interface Answering {
        void to(HttpExchange exchange) throws IOException;
    }

    private void on(HttpServer of, String path, Answering answering) {
        of.createContext(
                path,
                exchange -> {
                    var authorization = exchange.getRequestHeaders().getFirst("Authorization");
                    heard.add(
                            "%s %s %s"
                                    .formatted(
                                            exchange.getRequestMethod(),
                                            exchange.getRequestURI(),
                                            authorization == null ? "-" : authorization));
                    answering.to(exchange);
                    exchange.close();
                });
    }

    private void answer(String path, int status, String type, String body) {
        on(server, path, exchange -> send(exchange, status, type, body));
    }

    private static void send(HttpExchange exchange, int status, String type, String body)
            throws IOException {
        var bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", type);
        exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
        if (bytes.length > 0) {
            exchange.getResponseBody().write(bytes);
        }
    }

    private Reach reach(String scheme, String user) {
        return new Reach(
                "signals",
                "http://" + place(server),
                scheme,
                user,
                "sealed",
                "http://" + place(server) + "/token",
                "depths:read",
                Instant.EPOCH,
                "admin");
    }

    private Heard get(String path) {
        return send("GET", path, null, reach("none", ""));
    }

    private Heard send(
            String method, String path, @Nullable Map<String, Object> body, Reach reach) {
        return outside.send(
                reach,
                new OutsideRequest(
                        method, URI.create("http://" + place(server) + path), Map.of(), body),
                "again-1");
    }

    @Test
    void numbersComeAsTheyAreWritten() {
        answer("/depth", 200, "application/json; charset=utf-8", "{\"depth\": 3.10}");

        assertThat(get("/depth").answer()).isEqualTo(Map.of("depth", new BigDecimal("3.10")));
    }

    @Test
    void whatIsNoJsonIsToldAndNotUsed() {
        answer("/page", 200, "text/html", "<html>");
        answer("/torn", 200, "application/json", "{\"depth\": ");
        answer("/nothing", 204, "application/json", "");

        assertThat(get("/page").failure()).isEqualTo("Its answer is not JSON but text/html.");
        assertThat(get("/torn").failure()).startsWith("Its answer is not JSON: {");
        assertThat(get("/nothing").failure()).isNull();
    }

    @Test
    void anAnswerBeyondItsBoundIsNotReadToItsEnd() {
        answer("/large", 200, "application/json", '"' + "x".repeat(5_000_000) + '"');

        assertThat(get("/large").failure()).isEqualTo("Its answer has more than 2,000 bytes.");
    }

    @Test
    void aServiceThatSendsAByteNowAndThenIsGivenUp() {
        on(
                server,
                "/slow",
                exchange -> {
                    exchange.getResponseHeaders().add("Content-Type", "application/json");
                    exchange.sendResponseHeaders(200, 0);
                    for (int i = 0; i < 100; i++) {
                        exchange.getResponseBody().write(' ');
                        exchange.getResponseBody().flush();
                        if (awaited()) {
                            break;
                        }
                    }
                });

        var answer = get("/slow");

        assertThat(answer.failure()).isEqualTo("There was no answer within 1 s.");
        assertThat(answer.down()).isTrue();
    }

    private boolean awaited() {
        try {
            return end.await(100, TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void onlyWhatReadsIsAskedAgain() {
        answer("/down", 503, "text/plain", "");

        assertThat(get("/down").again()).isTrue();
        assertThat(send("POST", "/down", Map.of("a", 1), reach("none", "")).again()).isFalse();
    }

    @Test
    void whatChangesSomethingSaysByWhatItIsKnownWhenItComesAgain() {
        var keys = new ArrayList<String>();
        on(
                server,
                "/notes",
                exchange -> {
                    keys.add(exchange.getRequestHeaders().getFirst("Idempotency-Key"));
                    send(exchange, 201, "application/json", "\"noted\"");
                });

        assertThat(send("POST", "/notes", Map.of("a", 1), reach("none", "")).answer())
                .isEqualTo("noted");
        assertThat(keys).containsExactly("\"again-1\"");
    }

    @Test
    void aRedirectIsFollowedToTheSamePlaceAlone() {
        answer("/new", 200, "application/json", "1");
        on(server, "/moved", exchange -> redirect(exchange, "/new"));
        on(other, "/stolen", exchange -> send(exchange, 200, "application/json", "2"));
        on(server, "/away", exchange -> redirect(exchange, "http://" + place(other) + "/stolen"));
        on(server, "/round", exchange -> redirect(exchange, "/round"));

        assertThat(send("GET", "/moved", null, reach("bearer", "")).answer()).isEqualTo(1L);
        assertThat(send("GET", "/away", null, reach("bearer", "")).failure())
                .contains("a redirect to another place, which is not followed");
        assertThat(get("/round").failure()).contains("a redirect that leads nowhere");
        assertThat(heard).noneMatch(one -> one.contains("/stolen"));
    }

    private static void redirect(HttpExchange exchange, String to) throws IOException {
        exchange.getResponseHeaders().add("Location", to);
        exchange.sendResponseHeaders(302, -1);
    }

    @Test
    void anAddressInsideTheNetworkIsNotCalledUnlessItIsListed() {
        var heardOf =
                outside.send(
                        reach("bearer", ""),
                        new OutsideRequest(
                                "GET", URI.create("http://127.0.0.1:9/x"), Map.of(), null),
                        "k");

        assertThat(heardOf.failure()).contains("sandpiper.connections.allow");
        assertThat(heardOf.down()).isFalse();
    }

    @Test
    void credentialsGoWithTheRequest() {
        answer("/depth", 200, "application/json", "1");

        send("GET", "/depth", null, reach("basic", "Käpt'n"));
        send("GET", "/depth", null, reach("bearer", ""));

        var basic =
                Base64.getEncoder()
                        .encodeToString("Käpt'n:low tide".getBytes(StandardCharsets.UTF_8));
        assertThat(heard)
                .containsExactly("GET /depth Basic " + basic, "GET /depth Bearer low tide");
    }

    @Test
    void aTokenIsHadOnceAndAgainWhenItsTimeIsOver() {
        var issued = new ArrayList<String>();
        on(
                server,
                "/token",
                exchange -> {
                    issued.add(
                            new String(
                                    exchange.getRequestBody().readAllBytes(),
                                    StandardCharsets.UTF_8));
                    send(
                            exchange,
                            200,
                            "application/json",
                            "{\"access_token\": \"t%d\", \"token_type\": \"Bearer\", \"expires_in\": 60}"
                                    .formatted(issued.size()));
                });
        answer("/depth", 200, "application/json", "1");
        var reach = reach("client-credentials", "port & co");

        send("GET", "/depth", null, reach);
        send("GET", "/depth", null, reach);
        clock.now = clock.now.plusSeconds(55);
        send("GET", "/depth", null, reach);

        assertThat(issued)
                .containsExactly(
                        "grant_type=client_credentials&scope=depths%3Aread",
                        "grant_type=client_credentials&scope=depths%3Aread");
        assertThat(heard)
                .filteredOn(one -> one.startsWith("GET"))
                .containsExactly(
                        "GET /depth Bearer t1", "GET /depth Bearer t1", "GET /depth Bearer t2");
        var client =
                Base64.getEncoder()
                        .encodeToString("port+%26+co:low+tide".getBytes(StandardCharsets.US_ASCII));
        assertThat(heard.getFirst()).isEqualTo("POST /token Basic " + client);
    }

    @Test
    void aTokenThatWasTakenBackIsHadAnew() {
        var issued = new ArrayList<String>();
        on(
                server,
                "/token",
                exchange -> {
                    issued.add("t" + issued.size());
                    send(
                            exchange,
                            200,
                            "application/json",
                            "{\"access_token\": \"%s\"}".formatted(issued.getLast()));
                });
        on(
                server,
                "/depth",
                exchange -> {
                    boolean good =
                            "Bearer t1"
                                    .equals(exchange.getRequestHeaders().getFirst("Authorization"));
                    send(exchange, good ? 200 : 401, "application/json", "7");
                });

        assertThat(send("GET", "/depth", null, reach("client-credentials", "c")).answer())
                .isEqualTo(7L);
        assertThat(issued).containsExactly("t0", "t1");
    }

    @Test
    void credentialsThatAreNotAcceptedAreToldWithoutBeingShown() {
        answer("/depth", 401, "application/json", "{}");
        answer("/token", 400, "application/json", "{\"error\": \"invalid_client\"}");

        assertThat(send("GET", "/depth", null, reach("bearer", "")).failure())
                .contains("does not accept the credentials")
                .doesNotContain("low tide");
        assertThat(send("GET", "/depth", null, reach("client-credentials", "c")).failure())
                .contains("No access token was had")
                .doesNotContain("low tide");
    }
}
