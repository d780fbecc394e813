package sandpiper.engine;

import java.time.Clock;
import java.time.Duration;
import java.util.function.Consumer;
import java.util.function.Function;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.definition.Drafts;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.delivery.Deliveries;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.RecomputationStorage.Open;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.react.EventSinks;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.trial.Trials;
import sandpiper.engine.write.ReactionWrites;
import sandpiper.engine.write.RecordWrites;
import sandpiper.engine.writer.Writer;

/**
 * The running heart of an instance: one storage, one writer, one live release. Safe to share
 * between threads.
 */
public final class Engine implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Engine.class);

    /** Answers are given again for this long to a repeated request. */
    private static final Duration ANSWERS_KEPT = Duration.ofDays(1);

    private final Storage storage;
    private final Clock clock;
    private final Writer writer;
    private final Drafts drafts;
    private final Releases releases;
    private final Records records;
    private final Deliveries deliveries;

    /** Starts on a storage, which it closes when it is closed itself. */
    public Engine(Storage storage, Clock clock) {
        this(storage, clock, Tuning.USUAL);
    }

    /** The same, set up in another way. */
    public Engine(Storage storage, Clock clock, Tuning tuning) {
        this.storage = storage;
        this.clock = clock;
        this.writer = new Writer(storage, tuning.longestQueue(), tuning.metrics());
        this.drafts = new Drafts(storage, writer, clock);
        this.releases = new Releases(storage, drafts, writer, clock);
        var sinks = new EventSinks(storage.events(), Deliveries.listeners(), tuning.metrics());
        this.records =
                new Records(
                        storage,
                        releases::live,
                        writer,
                        new RecordWrites(storage.answers(), storage.runs(), sinks, clock),
                        new Trials(sinks, clock),
                        clock);
        this.deliveries =
                Deliveries.start(
                        storage,
                        releases::live,
                        writer,
                        new ReactionWrites(sinks, storage.runs(), clock),
                        sinks.listeners(),
                        tuning.ofHandlers(),
                        clock);
    }

    public Clock clock() {
        return clock;
    }

    /** The release that is served now. */
    public LiveRelease live() {
        return releases.live();
    }

    public Drafts drafts() {
        return drafts;
    }

    public Releases releases() {
        return releases;
    }

    public Records records() {
        return records;
    }

    public Deliveries deliveries() {
        return deliveries;
    }

    public Storage storage() {
        return storage;
    }

    /** Reads something other than records. */
    public <T> T read(Function<Session, T> reading) {
        try (var session = storage.snapshot()) {
            return reading.apply(session);
        }
    }

    /** Writes something other than records, and waits until it is durable. */
    public <T> T write(Function<Transaction, T> writing) {
        return Records.await(writer.submit(writing::apply));
    }

    /**
     * Writes something that nobody waits for, such as a note; when it cannot be written it is left
     * out, and the log says so.
     */
    @SuppressWarnings("FutureReturnValueIgnored") // nobody waits for it
    public void writeLater(Consumer<Transaction> writing) {
        try {
            writer.submit(
                            transaction -> {
                                writing.accept(transaction);
                                return true;
                            })
                    .whenComplete((_, failure) -> {
                        if (failure != null) {
                            LOG.warn("A note could not be written: {}", failure.toString());
                        }
                    });
        } catch (OverloadedException | IllegalStateException e) {
            LOG.warn("A note could not be written: {}", e.getMessage());
        }
    }

    /** Changes that wait to be written. */
    public int waiting() {
        return writer.waiting();
    }

    /**
     * Stores and reads something, so as to know whether both work.
     *
     * @throws StorageException that says why not
     */
    public void checkWritable() {
        write(transaction -> {
            // Something that leaves nothing behind but has to reach the disk.
            storage.recomputations().put(transaction, new Open("probe", 0));
            storage.recomputations().remove(transaction, "probe");
            return true;
        });
        read(session -> storage.definitions().newestRelease(session));
    }

    /** Forgets answers that need not be given again. */
    public void forgetOldAnswers() {
        write(transaction -> {
            storage.answers().forgetBefore(transaction, clock.instant().minus(ANSWERS_KEPT));
            return true;
        });
    }

    /** Finishes what was begun and stops. */
    @Override
    public void close() {
        deliveries.close();
        releases.close();
        writer.close();
        storage.close();
    }
}
