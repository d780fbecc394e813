package sandpiper.server.outside;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.ObjectProvider;
import sandpiper.engine.Engine;
import sandpiper.engine.outside.Ask;
import sandpiper.engine.outside.Reaches;
import sandpiper.engine.outside.Reply;
import sandpiper.engine.port.OutsideStorage.Reach;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.connection.LookupType;
import sandpiper.model.connection.OutsideOperation;
import sandpiper.model.connection.OutsideOperation.Sent;
import sandpiper.model.connection.OutsideOperation.Where;
import sandpiper.server.outgoing.OutgoingHttp;
import sandpiper.server.outgoing.Targets;
import sandpiper.server.security.SecretCipher;
import sandpiper.server.traffic.Traffic;

/** A whole question, with what is done when there is no answer. */
class OutsideAskerTest {
    private static final Clock CLOCK =
            Clock.fixed(Instant.parse("2026-05-01T10:00:00Z"), ZoneOffset.UTC);

    private static final LookupType FLAGS =
            new LookupType(
                    "signals",
                    "flags",
                    new OutsideOperation("GET", "/flags", List.of()),
                    null,
                    new OutsideOperation(
                            "GET", "/flags/{code}", List.of(new Sent("code", Where.PATH))),
                    List.of(),
                    List.of("code"),
                    List.of("name"),
                    Duration.ofMinutes(1),
                    false);

    private static final ConnectionType SIGNALS =
            new ConnectionType(
                    "signals", "port", "Signals", null, "office", "c", List.of(FLAGS), List.of());

    private final AtomicInteger asked = new AtomicInteger();
    private final Reaches reaches = mock(Reaches.class);
    private final Traffic traffic = mock(Traffic.class);
    private HttpServer server;
    private OutgoingHttp http;
    private volatile int status = 200;
    private volatile String body = "[]";

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext(
                "/",
                exchange -> {
                    asked.incrementAndGet();
                    var bytes = body.getBytes(StandardCharsets.UTF_8);
                    exchange.getResponseHeaders().add("Content-Type", "application/json");
                    exchange.sendResponseHeaders(status, bytes.length);
                    exchange.getResponseBody().write(bytes);
                    exchange.close();
                });
        server.start();
        var place = "127.0.0.1:" + server.getAddress().getPort();
        http =
                new OutgoingHttp(
                        new Targets(List.of(place), "sandpiper.connections.allow"),
                        Duration.ofSeconds(2),
                        "test");
        when(reaches.find("office"))
                .thenReturn(
                        Optional.of(
                                new Reach(
                                        "office",
                                        "http://" + place,
                                        "none",
                                        "",
                                        null,
                                        "",
                                        "",
                                        Instant.EPOCH,
                                        "admin")));
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private OutsideAsker asker(boolean held) {
        var engine = mock(Engine.class);
        when(engine.reaches()).thenReturn(reaches);
        return new OutsideAsker(
                provided(engine),
                provided(traffic),
                http,
                new OutsideHttp(http, mock(SecretCipher.class), CLOCK, 10_000),
                CLOCK,
                Duration.ofSeconds(2),
                held);
    }

    @SuppressWarnings("unchecked")
    private static <T> ObjectProvider<T> provided(T bean) {
        ObjectProvider<T> provider = mock(ObjectProvider.class);
        when(provider.getObject()).thenReturn(bean);
        return provider;
    }

    private static Ask ask(Ask.Kind kind, String argument) {
        return new Ask(SIGNALS, kind, "flags", List.of(argument), 0);
    }

    @Test
    void entriesAndOneEntryAreRead() {
        var asker = asker(false);

        body = "[{\"code\": \"A\", \"name\": \"Alfa\"}]";
        assertThat(asker.ask(ask(Ask.Kind.ENTRIES, ""), "k"))
                .isEqualTo(new Reply.Answer(List.of(new Reply.Entry("A", "Alfa"))));
        body = "{\"code\": \"A\", \"name\": \"Alfa\"}";
        assertThat(asker.ask(ask(Ask.Kind.ENTRY, "A"), "k"))
                .isEqualTo(new Reply.Answer(new Reply.Entry("A", "Alfa")));
        status = 404;
        assertThat(asker.ask(ask(Ask.Kind.ENTRY, "Z"), "k")).isEqualTo(new Reply.Answer(null));
        assertThat(asker.ask(ask(Ask.Kind.ENTRIES, ""), "k"))
                .isEqualTo(new Reply.Failure("Signals cannot be used: It answered 404.", false));
        verify(traffic, times(4))
                .count(any(), org.mockito.ArgumentMatchers.anyInt(), any(), any(), any());
    }

    @Test
    void whatReadsIsTriedAgainAndThenLeftAloneForAWhile() {
        var asker = asker(false);
        status = 503;

        for (int i = 0; i < 5; i++) {
            assertThat(asker.ask(ask(Ask.Kind.ENTRIES, ""), "k"))
                    .isEqualTo(
                            new Reply.Failure("Signals does not answer: It answered 503.", true));
        }
        assertThat(asked).hasValue(15);
        assertThat(asker.isLeftAlone("office")).isTrue();

        assertThat(asker.ask(ask(Ask.Kind.ENTRIES, ""), "k"))
                .isEqualTo(
                        new Reply.Failure(
                                "Signals does not answer: It has not answered of late and is left"
                                        + " alone for a while.",
                                true));
        assertThat(asked).as("nobody was asked").hasValue(15);

        status = 200;
        asker.forget("office");
        assertThat(asker.ask(ask(Ask.Kind.ENTRIES, ""), "k"))
                .isEqualTo(new Reply.Answer(List.of()));
    }

    @Test
    void nothingGoesOutFromARehearsal() {
        assertThat(asker(true).ask(ask(Ask.Kind.ENTRIES, ""), "k"))
                .isEqualTo(
                        new Reply.Failure(
                                "Signals does not answer: Nothing goes out from a rehearsal.",
                                true));
        assertThat(asked).hasValue(0);
        verify(reaches, never()).find(any());
    }

    @Test
    void anInstanceThatDoesNotKnowTheWaySaysSo() {
        when(reaches.find("office")).thenReturn(Optional.empty());

        assertThat(asker(false).ask(ask(Ask.Kind.ENTRIES, ""), "k"))
                .isEqualTo(
                        new Reply.Failure(
                                "Signals does not answer: This instance has no address for it; give"
                                        + " it one under Connections.",
                                true));
    }

    @Test
    void aCodeThatCannotStandInAnAddressIsNoReasonToLeaveAServiceAlone() {
        var asker = asker(false);

        for (int i = 0; i < 6; i++) {
            assertThat(asker.ask(ask(Ask.Kind.ENTRY, ".."), "k")).isInstanceOf(Reply.Failure.class);
        }
        assertThat(asker.isLeftAlone("office")).isFalse();
    }
}
