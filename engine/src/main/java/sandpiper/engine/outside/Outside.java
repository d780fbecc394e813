package sandpiper.engine.outside;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.outside.GivenAnswers.Fetched;
import sandpiper.engine.port.OutsideStorage;
import sandpiper.engine.port.OutsideStorage.Kept;
import sandpiper.engine.port.Session;
import sandpiper.engine.work.WorkIds;
import sandpiper.engine.writer.Transactions;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.connection.LookupType;
import sandpiper.model.connection.OutsideCallType;

/** Asks outside services on behalf of work, and keeps what may be kept. Safe to share. */
public final class Outside {
    /** Where nothing is asked and nothing kept. */
    public static final Outside NONE = new Outside();

    /** Times that work may be begun anew for the sake of answers. */
    private static final int MOST_ROUNDS = 20;

    /** Answers that one piece of work may have fetched. */
    private static final int MOST_ANSWERS = 100;

    /** All the asking for one piece of work; whoever waits for it gives up after a minute. */
    private static final Duration LONGEST = Duration.ofSeconds(30);

    private final OutsideServices services;
    private final @Nullable OutsideStorage storage;
    private final @Nullable Transactions transactions;
    private final Clock clock;

    private Outside() {
        this.services = OutsideServices.NONE;
        this.storage = null;
        this.transactions = null;
        this.clock = Clock.systemUTC();
    }

    public Outside(
            OutsideServices services,
            OutsideStorage storage,
            Transactions transactions,
            Clock clock) {
        this.services = services;
        this.storage = storage;
        this.transactions = transactions;
        this.clock = clock;
    }

    /**
     * Does work, fetching the answers it turns out to want and beginning anew with them.
     *
     * @param work is done with the answers there are; throws {@link AnswersWantedException} for
     *     more
     */
    public <T> T answered(Function<GivenAnswers, T> work) {
        return answered(WorkIds.next().toString(), GivenAnswers.NOTHING, work);
    }

    /**
     * The same of work that may be done once more later.
     *
     * @param repeatKey the same each time, so that what it changes outside is done once
     */
    public <T> T answered(String repeatKey, Function<GivenAnswers, T> work) {
        return answered(repeatKey, GivenAnswers.NOTHING, work);
    }

    /** The same of work that is thrown away: nothing is changed outside for it. */
    public <T> T tried(Function<GivenAnswers, T> work) {
        return answered(WorkIds.next().toString(), GivenAnswers.NOTHING.onTrial(), work);
    }

    private <T> T answered(String repeatKey, GivenAnswers first, Function<GivenAnswers, T> work) {
        var given = first;
        long end = System.nanoTime() + LONGEST.toNanos();
        for (int round = 0; ; round++) {
            try {
                return work.apply(given);
            } catch (AnswersWantedException e) {
                boolean more =
                        round < MOST_ROUNDS
                                && given.size() + e.asks().size() <= MOST_ANSWERS
                                && System.nanoTime() < end;
                given =
                        given.with(
                                more ? fetch(e.asks(), repeatKey, end) : refused(e.asks(), round));
            }
        }
    }

    private static Map<Ask, Fetched> refused(List<Ask> asks, int round) {
        if (round > 2 * MOST_ROUNDS) {
            throw new IllegalStateException("Work goes on asking: " + asks.getFirst().written());
        }
        var replies = new HashMap<Ask, Fetched>();
        asks.forEach(ask ->
                replies.put(
                        ask,
                        new Fetched(
                                new Reply.Failure(
                                        "%s is not asked any more: this asks too much, or for too long."
                                                .formatted(ask.connection().label()),
                                        true),
                                Duration.ZERO)));
        return replies;
    }

    private Map<Ask, Fetched> fetch(List<Ask> asks, String repeatKey, long end) {
        var running = new LinkedHashMap<Ask, CompletableFuture<Fetched>>();
        long began = System.nanoTime();
        for (var ask : asks) {
            var reply = new CompletableFuture<Fetched>();
            running.put(ask, reply);
            Thread.ofVirtual()
                    .name("sandpiper-ask")
                    .start(() -> {
                        try {
                            reply.complete(since(began, ask(ask, repeatKey)));
                        } catch (RuntimeException | Error e) {
                            reply.completeExceptionally(e);
                        }
                    });
        }
        var replies = new HashMap<Ask, Fetched>();
        running.forEach((ask, reply) -> replies.put(ask, awaited(ask, reply, began, end)));
        keep(replies);
        return replies;
    }

    private static Fetched since(long began, Reply reply) {
        return new Fetched(reply, Duration.ofNanos(System.nanoTime() - began));
    }

    private Reply ask(Ask ask, String repeatKey) {
        var whole =
                "%s %s %s %d"
                        .formatted(repeatKey, ask.connection().name(), ask.key(), ask.occurrence());
        return services.ask(
                ask, UUID.nameUUIDFromBytes(whole.getBytes(StandardCharsets.UTF_8)).toString());
    }

    private static Fetched awaited(
            Ask ask, CompletableFuture<Fetched> reply, long began, long end) {
        try {
            return reply.get(Math.max(1, end - System.nanoTime()), TimeUnit.NANOSECONDS);
        } catch (TimeoutException _) {
            return since(
                    began,
                    new Reply.Failure(
                            "%s took too long to answer.".formatted(ask.connection().label()),
                            true));
        } catch (ExecutionException e) {
            throw new CompletionException("Asking " + ask.written(), e.getCause());
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
            return since(
                    began,
                    new Reply.Failure(
                            "%s was not asked: the service is stopping."
                                    .formatted(ask.connection().label()),
                            true));
        }
    }

    private void keep(Map<Ask, Fetched> replies) {
        var place = storage;
        if (place == null || transactions == null) {
            return;
        }
        var now = clock.instant();
        var kept = new ArrayList<Kept>();
        replies.forEach((ask, fetched) -> {
            var keep = keepOf(ask);
            // That there is no such entry may be another thing tomorrow.
            if (keep != null
                    && fetched.reply() instanceof Reply.Answer(var plain)
                    && plain != null) {
                kept.add(
                        new Kept(
                                ask.connection().name(),
                                ask.key(),
                                KeptForm.written(plain),
                                now.plus(keep)));
            }
        });
        if (!kept.isEmpty()) {
            transactions.change(transaction -> kept.forEach(one -> place.keep(transaction, one)));
        }
    }

    /** How long an answer is kept; {@code null} for not at all. */
    private static @Nullable Duration keepOf(Ask ask) {
        return switch (ask.kind()) {
            case CALL ->
                    ask.connection()
                            .function(ask.name())
                            .map(one -> ((OutsideCallType) one).keep())
                            .orElse(null);
            case ENTRY, ENTRIES ->
                    ask.connection().lookup(ask.name()).map(LookupType::keep).orElse(null);
        };
    }

    /** What was kept of an earlier answer and may still be used. */
    Optional<Reply> kept(Session session, Ask ask) {
        var place = storage;
        if (place == null || keepOf(ask) == null) {
            return Optional.empty();
        }
        return place.kept(session, ask.connection().name(), ask.key())
                .filter(one -> one.until().isAfter(clock.instant()))
                .map(one -> new Reply.Answer(KeptForm.read(ask.kind(), one.plain())));
    }

    /**
     * Entries of a lookup for a pick list.
     *
     * @param text what somebody types; empty for all
     */
    public Reply entries(ConnectionType connection, LookupType lookup, String text) {
        var ask =
                new Ask(
                        connection,
                        Ask.Kind.ENTRIES,
                        lookup.name(),
                        List.of(lookup.search() == null ? "" : text),
                        0);
        if (transactions != null) {
            var kept = transactions.read(session -> kept(session, ask));
            if (kept.isPresent()) {
                return kept.get();
            }
        }
        var reply = ask(ask, WorkIds.next().toString());
        keep(Map.of(ask, new Fetched(reply, Duration.ZERO)));
        return reply;
    }

    /** Asks now, whatever is kept, to see what comes. */
    public Reply tryOut(Ask ask) {
        return ask(ask, WorkIds.next().toString());
    }

    /** Forgets answers whose time is over. */
    public void forgetOld() {
        var place = storage;
        if (place != null && transactions != null) {
            transactions.change(transaction -> place.forgetBefore(transaction, clock.instant()));
        }
    }
}
