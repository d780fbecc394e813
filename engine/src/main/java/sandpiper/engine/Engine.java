package sandpiper.engine;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sandpiper.engine.access.CountedTries;
import sandpiper.engine.accounts.Accounts;
import sandpiper.engine.definition.Drafts;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.definition.SeedLoader;
import sandpiper.engine.delivery.Deliveries;
import sandpiper.engine.following.ChangeWatch;
import sandpiper.engine.outside.Outside;
import sandpiper.engine.outside.Reaches;
import sandpiper.engine.port.RecomputationStorage.Open;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Storage.Peer;
import sandpiper.engine.port.Storage.Shared;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.react.Surroundings;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.settings.InstanceSettings;
import sandpiper.engine.signin.OpenSessions;
import sandpiper.engine.signin.SharedTries;
import sandpiper.engine.traffic.CallCounts;
import sandpiper.engine.traffic.KeptTraces;
import sandpiper.engine.trial.Trials;
import sandpiper.engine.views.NamedViews;
import sandpiper.engine.write.ReactionWrites;
import sandpiper.engine.write.RecordWrites;
import sandpiper.engine.writer.Transactions;
import sandpiper.engine.writer.Writer;

/**
 * The running heart of an instance: one storage, one writer, one live release. Safe to share
 * between threads.
 */
public final class Engine implements AutoCloseable {
    /** Answers are given again for this long to a repeated request. */
    private static final Duration ANSWERS_KEPT = Duration.ofDays(1);

    /** Longer than anybody is kept from trying on. */
    private static final Duration TRIES_KEPT = Duration.ofHours(1);

    private final Storage storage;
    private final Clock clock;
    private final Writer writer;
    private final Drafts drafts;
    private final Releases releases;
    private final Records records;
    private final Deliveries deliveries;
    private final Transactions transactions;
    private final Accounts accounts;
    private final OpenSessions sessions;
    private final InstanceSettings settings;
    private final CallCounts calls;
    private final KeptTraces traces;
    private final NamedViews views;
    private final Outside outside;
    private final Reaches reaches;
    private final ChangeWatch watch;

    /** Starts on a storage, which it closes when it is closed itself. */
    public Engine(Storage storage, Clock clock) {
        this(storage, clock, Tuning.USUAL);
    }

    /** The same, set up in another way. */
    public Engine(Storage storage, Clock clock, Tuning tuning) {
        this.storage = storage;
        this.clock = clock;
        this.writer = Writer.of(storage, tuning.longestQueue(), tuning.metrics());
        this.transactions = new Transactions(storage, writer);
        this.accounts = new Accounts(storage.access(), transactions, clock);
        this.sessions = new OpenSessions(storage.signIns(), transactions, clock);
        this.settings = new InstanceSettings(storage.access(), transactions, accounts.log());
        this.calls = new CallCounts(storage.traffic(), transactions);
        this.traces = new KeptTraces(storage.traces(), transactions);
        this.views = new NamedViews(storage.views(), transactions);
        this.drafts = new Drafts(storage, writer, clock);
        this.outside = new Outside(tuning.outside(), storage.outside(), transactions, clock);
        this.reaches = new Reaches(storage.outside(), transactions, accounts.log(), clock);
        var sinks =
                new Surroundings(
                        storage.events(), Deliveries.listeners(), tuning.metrics(), outside);
        var writes = new RecordWrites(storage.answers(), storage.runs(), sinks, clock);
        this.releases = new Releases(storage, drafts, writer, clock, new SeedLoader(writes));
        this.records =
                new Records(
                        storage,
                        releases::live,
                        writer,
                        writes,
                        new Trials(sinks, clock),
                        outside,
                        clock);
        this.deliveries =
                Deliveries.start(
                        storage,
                        releases::live,
                        writer,
                        new ReactionWrites(sinks, storage.runs(), clock),
                        sinks.listeners(),
                        outside,
                        tuning.ofHandlers(),
                        tuning.schedules(),
                        clock);
        releases.whenServed(deliveries::refreshWebhooks);
        this.watch =
                ChangeWatch.begin(
                        storage,
                        Map.of(
                                Shared.RELEASE, releases::follow,
                                Shared.REVISIONS, releases.revisions()::reload,
                                Shared.ACCESS, storage.access()::changedElsewhere,
                                Shared.WEBHOOKS, deliveries::refreshWebhooks,
                                Shared.SETTINGS, settings::changedElsewhere));
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

    /** The people, clients and roles of the instance. */
    public Accounts accounts() {
        return accounts;
    }

    /** The sessions that people have open. */
    public OpenSessions sessions() {
        return sessions;
    }

    /**
     * How often passwords were tried at any process that works on the data; nothing when it is this
     * one alone, which counts better by itself.
     */
    public Optional<CountedTries> tries() {
        return isInFile()
                ? Optional.empty()
                : Optional.of(new SharedTries(storage.signIns(), transactions));
    }

    /** Values that belong to the instance. */
    public InstanceSettings settings() {
        return settings;
    }

    /** How services are called. */
    public CallCounts calls() {
        return calls;
    }

    /** Accounts of requests. */
    public KeptTraces traces() {
        return traces;
    }

    /** The views people keep of lists. */
    public NamedViews views() {
        return views;
    }

    /** Services outside. */
    public Outside outside() {
        return outside;
    }

    /** How services outside are reached. */
    public Reaches reaches() {
        return reaches;
    }

    /**
     * Writes a copy of everything as it is at one moment, while the service goes on.
     *
     * @param to a file that is not there yet
     */
    public void backUp(Path to) {
        storage.backUp(to);
    }

    /** Whether the data is in a file of this process alone. */
    public boolean isInFile() {
        return storage.writers() == 1;
    }

    /** What keeps the data, with its version. */
    public String storedIn() {
        return storage.storedIn();
    }

    /** The processes of the service that work on the data, this one among them. */
    public List<Peer> peers() {
        return transactions.read(storage::peers);
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
        transactions.write(transaction -> {
            // Something that leaves nothing behind but has to reach the disk.
            storage.recomputations().put(transaction, new Open("probe", 0));
            storage.recomputations().remove(transaction, "probe");
            return true;
        });
        transactions.read(session -> storage.definitions().newestRelease(session));
    }

    /** Forgets answers that need not be given again, and values that were kept long enough. */
    public void forgetOld() {
        transactions.write(transaction -> {
            storage.answers().forgetBefore(transaction, clock.instant().minus(ANSWERS_KEPT));
            storage.signIns().forgetTries(transaction, clock.instant().minus(TRIES_KEPT));
            sessions.forgetOld(transaction);
            return true;
        });
        records.removeUnusedFiles();
        outside.forgetOld();
        releases.kept().forgetOld();
    }

    /** Finishes what was begun and stops. */
    @Override
    public void close() {
        watch.close();
        deliveries.close();
        releases.close();
        writer.close();
        storage.close();
    }
}
