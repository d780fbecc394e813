package sandpiper.server.webhook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.doReturn;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import sandpiper.engine.Engine;
import sandpiper.engine.delivery.Deliveries;
import sandpiper.engine.event.Delivery;
import sandpiper.engine.event.Event;
import sandpiper.engine.event.Webhook;
import sandpiper.engine.port.EventStorage.Delivered;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.Release;
import sandpiper.server.security.SecretCipher;

/**
 * What was taken is not sent again, whatever the sender had read before it was; every call counts
 * as one try. The clock stands still, so what failed is not due again.
 */
class WebhookSenderTest {
    private static final Instant NOW = Instant.parse("2026-05-01T10:00:00Z");
    private static final int MESSAGES = 60;

    private static final Webhook WEBHOOK =
            new Webhook(
                    "books",
                    "Bookkeeping",
                    "https://books.example/events",
                    List.of("Stay.created"),
                    null,
                    "sealed",
                    null,
                    null,
                    false);

    /** Deliveries as a store has them. */
    private final Map<Long, Delivered> stored = new ConcurrentHashMap<>();

    private final Map<String, AtomicInteger> calls = new ConcurrentHashMap<>();
    private final Map<Long, AtomicInteger> noted = new ConcurrentHashMap<>();
    private final Set<String> refused = ConcurrentHashMap.newKeySet();

    private static Event event(long number) {
        return new Event(
                number,
                new UUID(0, number),
                "Stay.created",
                Event.Kind.RAISED,
                new UUID(1, number),
                "Stay",
                new UUID(2, number),
                "ST-" + number,
                NOW,
                "clerk",
                "test",
                0,
                Map.of());
    }

    private Deliveries deliveries(Random random) {
        var deliveries = mock(Deliveries.class);
        when(deliveries.webhooks()).thenReturn(List.of(WEBHOOK));
        when(deliveries.nextForWebhooks()).thenReturn(Optional.empty());
        when(deliveries.take(anyLong(), any()))
                .thenAnswer(asked ->
                        Optional.ofNullable(stored.get(asked.<Long>getArgument(0)))
                                .filter(one -> one.delivery().state() == Delivery.State.WAITING)
                                .filter(one -> !one.delivery().due().isAfter(NOW)));
        when(deliveries.dueForWebhooks(anyInt()))
                .thenAnswer(_ -> {
                    var due =
                            new ArrayList<>(
                                    stored.values().stream()
                                            .filter(one ->
                                                    one.delivery().state()
                                                            == Delivery.State.WAITING)
                                            .filter(one -> !one.delivery().due().isAfter(NOW))
                                            .toList());
                    // Between reading and beginning, what was on its way arrives.
                    Thread.sleep(random.nextInt(4));
                    return due;
                });
        when(deliveries.followingForWebhooks(any()))
                .thenAnswer(asked -> {
                    Delivery done = asked.getArgument(0);
                    return Optional.ofNullable(stored.get(done.number() + 1))
                            .map(Delivered::delivery)
                            .filter(one -> one.state() == Delivery.State.WAITING)
                            .filter(one -> !one.due().isAfter(NOW));
                });
        doAnswer(
                        told -> {
                            Delivery before = told.getArgument(0);
                            boolean delivered = told.getArgument(2);
                            @Nullable Instant next = told.getArgument(3);
                            noted.computeIfAbsent(before.number(), _ -> new AtomicInteger())
                                    .incrementAndGet();
                            stored.computeIfPresent(
                                    before.number(),
                                    (_, one) ->
                                            new Delivered(
                                                    after(before, delivered, next), one.event()));
                            return null;
                        })
                .when(deliveries)
                .tried(any(), any(), anyBoolean(), any());
        return deliveries;
    }

    private static Delivery after(Delivery before, boolean delivered, @Nullable Instant next) {
        var state =
                delivered
                        ? Delivery.State.DONE
                        : next == null ? Delivery.State.PARKED : Delivery.State.WAITING;
        return new Delivery(
                before.number(),
                before.event(),
                before.target(),
                before.record(),
                state,
                before.tries() + 1,
                next == null ? NOW : next,
                null,
                "",
                null);
    }

    private void store(int messages) {
        for (long i = 1; i <= messages; i++) {
            var event = event(i);
            stored.put(
                    i,
                    new Delivered(
                            new Delivery(
                                    i,
                                    i,
                                    WEBHOOK.target(),
                                    event.record(),
                                    Delivery.State.WAITING,
                                    0,
                                    NOW,
                                    null,
                                    "",
                                    null),
                            event));
        }
    }

    private WebhookSender sender(Deliveries deliveries, Random random) {
        var client = mock(WebhookClient.class);
        when(client.post(anyString(), any(), anyString()))
                .thenAnswer(asked -> {
                    Map<String, String> headers = asked.getArgument(1);
                    var id = headers.get(Signature.ID);
                    calls.computeIfAbsent(id, _ -> new AtomicInteger()).incrementAndGet();
                    Thread.sleep(random.nextInt(3));
                    boolean taken = Math.abs(id.hashCode()) % 5 != 0;
                    if (!taken) {
                        refused.add(id);
                    }
                    return taken
                            ? new WebhookClient.Sent(200, "", "", true, false, null)
                            : WebhookClient.Sent.failed("no");
                });
        var seal = mock(SecretCipher.class);
        when(seal.open(anyString()))
                .thenReturn(Optional.of("whsec_" + "MfKQ9r8GKYqrTwjUPD8ILPZIo2LaLaSw"));
        var live = mock(LiveRelease.class);
        when(live.release()).thenReturn(Release.EMPTY);
        var engine = mock(Engine.class);
        when(engine.deliveries()).thenReturn(deliveries);
        when(engine.clock()).thenReturn(Clock.fixed(NOW, ZoneOffset.UTC));
        when(engine.live()).thenReturn(live);

        return new WebhookSender(
                engine, seal, client, List.of(Duration.ofMinutes(1)), Duration.ofSeconds(2), false);
    }

    @RepeatedTest(8)
    void eachMessageIsSentOnceUntilItIsTaken(RepetitionInfo repetition) throws Exception {
        var random = new Random(repetition.getCurrentRepetition());
        store(MESSAGES);
        var sender = sender(deliveries(random), random);
        sender.start();
        var end = Instant.now().plusSeconds(20);
        while (noted.size() < MESSAGES && Instant.now().isBefore(end)) {
            Thread.sleep(10);
        }
        Thread.sleep(60);
        sender.close();

        assertThat(calls).hasSize(MESSAGES);
        assertThat(calls).allSatisfy((id, count) -> assertThat(count).as(id).hasValue(1));
        assertThat(noted).hasSize(MESSAGES);
        assertThat(stored)
                .allSatisfy((number, one) -> assertThat(one.delivery().tries()).isEqualTo(1));
        assertThat(stored.values())
                .filteredOn(one -> one.delivery().state() == Delivery.State.WAITING)
                .extracting(one -> one.event().id().toString())
                .containsExactlyInAnyOrderElementsOf(refused);
    }

    @Test
    void whatWaitedForAMessageThatIsTakenFollowsWithoutAnotherLook() throws Exception {
        store(5);
        var random = new Random(1);
        var deliveries = deliveries(random);
        var first = List.of(stored.get(1L));
        doReturn(first).doReturn(List.of()).when(deliveries).dueForWebhooks(anyInt());
        var sender = sender(deliveries, random);

        sender.start();
        var end = Instant.now().plusSeconds(20);
        while (noted.size() < 5 && Instant.now().isBefore(end)) {
            Thread.sleep(10);
        }
        sender.close();

        assertThat(noted.keySet()).containsExactlyInAnyOrder(1L, 2L, 3L, 4L, 5L);
    }
}
