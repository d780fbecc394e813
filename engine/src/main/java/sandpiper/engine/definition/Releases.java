package sandpiper.engine.definition;

import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.DefinitionStorage.StoredRelease;
import sandpiper.engine.port.RecomputationStorage.Open;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.write.Backfill;
import sandpiper.engine.writer.Follower;
import sandpiper.engine.writer.Transactions;
import sandpiper.engine.writer.WriteJob;
import sandpiper.engine.writer.Writer;
import sandpiper.model.check.Definitions;
import sandpiper.model.logic.ReleaseLogic;
import sandpiper.model.release.Release;
import sandpiper.model.type.FileType;

/** The numbered states of the definitions. The newest one is live. */
public final class Releases implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Releases.class);

    /** Tables of millions of records take minutes to change. */
    private static final Duration LONGEST_RELEASE = Duration.ofMinutes(30);

    private final Storage storage;
    private final Drafts drafts;
    private final Writer writer;
    private final Clock clock;
    private final BackfillJob backfill;
    private final ContractRevisions revisions;
    private final KeptAside kept;
    private final Followers followers;
    private final RolesOfPackages roles;
    private final ReleasePreviews previews;
    private final @Nullable SeedLoader seeds;
    private final ReentrantLock serving = new ReentrantLock();
    private volatile Runnable served = () -> {};
    private volatile LiveRelease live;
    private volatile @Nullable Ready ready;
    private volatile Wanted.@Nullable Earlier takenBack;

    /** What was compiled ahead, so that nobody who writes has to wait for it. */
    private record Ready(Map<String, String> files, LiveRelease release) {}

    /** Loads the newest release; of packages no records are made. */
    public Releases(Storage storage, Drafts drafts, Writer writer, Clock clock) {
        this(storage, drafts, writer, clock, null);
    }

    /**
     * Loads the newest release.
     *
     * @param seeds makes the records that come with packages, or {@code null} to leave them out
     */
    public Releases(
            Storage storage,
            Drafts drafts,
            Writer writer,
            Clock clock,
            @Nullable SeedLoader seeds) {
        this.seeds = seeds;
        this.storage = storage;
        this.drafts = drafts;
        this.writer = writer;
        this.clock = clock;
        this.kept = new KeptAside(storage, new Transactions(storage, writer), clock);
        this.roles = new RolesOfPackages(storage.access(), clock);
        this.followers =
                new Followers(storage.access(), storage.views(), storage.webhooks(), clock);
        this.previews =
                new ReleasePreviews(
                        storage,
                        drafts,
                        new ContractUses(storage.traffic(), clock),
                        kept,
                        followers,
                        roles,
                        clock);
        this.live = newest();
        this.revisions = new ContractRevisions(storage, writer, clock);
        revisions.load(live.number(), live.release());
        this.backfill = new BackfillJob(storage, this::live, writer, clock);
        writer.follow(
                new Follower() {
                    @Override
                    public int number() {
                        return live.number();
                    }

                    @Override
                    public void follow(int number) {
                        Releases.this.follow();
                    }
                });
    }

    /** Goes by the newest release there is, when another process made one. */
    public void follow() {
        serving.lock();
        try {
            int number;
            try (var session = storage.snapshot()) {
                number = storage.definitions().newestRelease(session).orElse(0);
            }
            if (number > live.number()) {
                serve(newest());
                LOG.info("Release {}, which another process made, is live", number);
            }
        } finally {
            serving.unlock();
        }
    }

    /** What callers have who took a contract before. */
    public ContractRevisions revisions() {
        return revisions;
    }

    /** Runs on the writer's thread as soon as a release is served; must be quick and not throw. */
    public void whenServed(Runnable told) {
        served = told;
    }

    /** Values that releases took out of use, for as long as they can come back. */
    public KeptAside kept() {
        return kept;
    }

    /** Formulas that are still being worked out for records that were there. */
    public List<BackfillJob.Progress> recomputing() {
        return backfill.progress();
    }

    @Override
    public void close() {
        backfill.close();
    }

    /**
     * What whoever releases takes upon themselves.
     *
     * @param losses that data is lost
     * @param breaks that callers of published services are broken
     */
    public record Accepted(boolean losses, boolean breaks) {
        /** Nothing bad. */
        public static final Accepted NOTHING = new Accepted(false, false);
    }

    /**
     * A release as it is wanted.
     *
     * @param note what it is for
     * @param accepted what of the preview's bad news is accepted
     * @param forgets whether values of what is removed are dropped at once instead of being kept
     *     aside
     */
    public record Order(String note, Accepted accepted, boolean forgets) {}

    private LiveRelease newest() {
        try (var session = storage.snapshot()) {
            var number = storage.definitions().newestRelease(session).orElse(0);
            if (number == 0) {
                return liveOf(0, Release.EMPTY);
            }
            var checked = Definitions.reread(storage.definitions().filesOf(session, number));
            checked.errors()
                    .forEach(error ->
                            LOG.warn(
                                    "Release {} has what a new one may not have: {}:{} {}",
                                    number,
                                    error.file(),
                                    error.line(),
                                    error.message()));
            return liveOf(
                    number,
                    checked.release()
                            .orElseThrow(() ->
                                    new IllegalStateException(
                                            "Release %d no longer passes its checks: %s"
                                                    .formatted(number, checked.errors()))));
        }
    }

    private LiveRelease liveOf(int number, Release release) {
        if (release.hasFiles()) {
            // What types there are takes a second to learn, for which no write is to wait.
            FileType.prepare();
        }
        return new LiveRelease(
                number,
                release,
                ReleaseLogic.of(release),
                storage.records(release),
                storage.history());
    }

    /** The release that is served now. */
    public LiveRelease live() {
        return live;
    }

    /** All releases, newest first. */
    public List<StoredRelease> all() {
        try (var session = storage.snapshot()) {
            return storage.definitions().releases(session);
        }
    }

    /** The files of a release by path; empty when there is no such release. */
    public Map<String, String> filesOf(int number) {
        try (var session = storage.snapshot()) {
            return storage.definitions().filesOf(session, number);
        }
    }

    /**
     * What releasing the draft would mean; changes nothing.
     *
     * @param forgets see {@link Order}
     */
    public ReleasePreview preview(boolean forgets) {
        try (var session = storage.snapshot()) {
            return preview(session, new Wanted.Draft(drafts.files(session)), forgets);
        }
    }

    /** The same, with values of what is removed kept aside. */
    public ReleasePreview preview() {
        return preview(false);
    }

    /**
     * What going back to an earlier release would mean; changes nothing.
     *
     * @return nothing when there is no such release
     */
    public Optional<ReleasePreview> previewOfTakingBack(int number, boolean forgets) {
        return earlier(number)
                .map(wanted -> {
                    try (var session = storage.snapshot()) {
                        return preview(session, wanted, forgets);
                    }
                });
    }

    private ReleasePreview preview(Session session, Wanted wanted, boolean forgets) {
        return previews.of(session, live, wanted, () -> makeReady(wanted.files()), forgets);
    }

    /**
     * Releases the draft: the tables follow, and from the next request on the new definitions are
     * served. One transaction; requests go on meanwhile.
     */
    public ReleasePreview.Result release(Order order, Actor actor) {
        makeReady(drafts.files());
        return release(transaction -> new Wanted.Draft(drafts.files(transaction)), order, actor);
    }

    /** The same, with values of what is removed kept aside. */
    public ReleasePreview.Result release(String note, Accepted accepted, Actor actor) {
        return release(new Order(note, accepted, false), actor);
    }

    /**
     * Makes the definitions of an earlier release live again, as a new release. The draft follows,
     * but for files that were changed in it since the last release.
     *
     * @return nothing when there is no such release
     */
    public Optional<ReleasePreview.Result> takeBack(int number, Order order, Actor actor) {
        return earlier(number)
                .map(wanted -> {
                    makeReady(wanted.files());
                    return release(_ -> earlier(number).orElseThrow(), order, actor);
                });
    }

    /** A release to go back to; nothing when there is none of the number. */
    private Optional<Wanted> earlier(int number) {
        int last = live.number();
        var known = takenBack;
        if (known != null && known.number() == number && known.live() == last) {
            return Optional.of(known);
        }
        try (var session = storage.snapshot()) {
            var files = storage.definitions().filesOf(session, number);
            if (number < 1 || number > last || files.isEmpty()) {
                return Optional.empty();
            }
            var way = new ArrayList<Release>();
            for (int one = number; one < last; one++) {
                // What cannot be read any more renames nothing that could be followed.
                Definitions.reread(storage.definitions().filesOf(session, one))
                        .release()
                        .ifPresent(way::add);
            }
            var wanted = new Wanted.Earlier(number, last, files, way);
            takenBack = wanted;
            return Optional.of(wanted);
        }
    }

    private ReleasePreview.Result release(
            Function<Session, Wanted> wanted, Order order, Actor actor) {
        var attempt =
                writer.submitAlone(
                        new WriteJob<Attempt>() {
                            @Override
                            public Attempt run(Transaction transaction) {
                                return releaseIn(
                                        transaction, wanted.apply(transaction), order, actor);
                            }

                            @Override
                            public boolean keeps(Attempt attempt) {
                                return attempt.next() != null;
                            }
                        },
                        made -> serveMade(Objects.requireNonNull(made.next())));
        var came = Writer.await(attempt, LONGEST_RELEASE);
        // Of those that are made to play examples, which have no seeds, nobody needs to know.
        if (came.next() != null && seeds != null) {
            LOG.info("Release {} is live", came.next().number());
        }
        return came.result();
    }

    /** What came of a release; {@code next} is what is served then, {@code null} when refused. */
    private record Attempt(ReleasePreview.Result result, @Nullable LiveRelease next) {}

    private static Attempt refused(ReleasePreview preview, String why) {
        return new Attempt(new ReleasePreview.Result.Refused(preview, why), null);
    }

    private Optional<LiveRelease> makeReady(Map<String, String> files) {
        int number = live.number() + 1;
        var known = ready;
        if (known != null && known.release().number() == number && known.files().equals(files)) {
            return Optional.of(known.release());
        }
        var made = drafts.check(files).release().map(one -> liveOf(number, one));
        made.ifPresent(one -> ready = new Ready(files, one));
        return made;
    }

    /** What needs to be accepted and is not, all at once. */
    private static List<String> unaccepted(ReleasePreview preview, Accepted accepted) {
        var sentences = new ArrayList<String>();
        if (!preview.losses().isEmpty() && !accepted.losses()) {
            sentences.add("Data would be taken away; accept that to go on.");
        }
        if (!preview.breaks().isEmpty() && !accepted.breaks()) {
            sentences.add(
                    "Published contracts would break; make a new version of the service, or accept"
                            + " that.");
        }
        return sentences;
    }

    private Attempt releaseIn(Transaction transaction, Wanted wanted, Order order, Actor actor) {
        var preview = preview(transaction, wanted, order.forgets());
        if (preview.hasErrors()) {
            return refused(preview, wanted.named() + " has errors; nothing was released.");
        }
        if (!preview.obstacles().isEmpty()) {
            return refused(preview, "The data stands in the way; nothing was released.");
        }
        var unaccepted = unaccepted(preview, order.accepted());
        if (!unaccepted.isEmpty()) {
            return refused(preview, String.join(" ", unaccepted) + " Nothing was released.");
        }
        if (preview.files().isEmpty()) {
            return refused(preview, wanted.named() + " is the same as the live release.");
        }
        var next = makeReady(wanted.files()).orElseThrow();
        var change = wanted.change(live.release(), next.release());
        followers.follow(transaction, change, actor);
        roles.apply(transaction, next.release(), actor);
        storage.schema()
                .apply(
                        transaction,
                        change,
                        previews.aside(transaction, live, change, order.forgets()));
        new Backfill(next, transaction, storage.events(), actor, clock.instant())
                .run(change)
                .forEach(field ->
                        storage.recomputations().put(transaction, new Open(field.written(), 0)));
        var unmade =
                seeds == null ? List.<String>of() : seeds.load(transaction, live.release(), next);
        if (!unmade.isEmpty()) {
            return refused(
                    preview,
                    "Records that come with packages are refused; nothing was released. "
                            + String.join(" ", unmade));
        }
        var stored =
                new StoredRelease(
                        live.number() + 1,
                        clock.instant(),
                        actor.name(),
                        order.note().isBlank() ? wanted.usualNote() : order.note(),
                        preview.changes());
        if (wanted instanceof Wanted.Earlier) {
            drafts.follow(
                    transaction,
                    storage.definitions().filesOf(transaction, live.number()),
                    wanted.files(),
                    actor);
        }
        storage.definitions().putRelease(transaction, stored, wanted.files());
        revisions.record(transaction, next.number(), next.release());
        return new Attempt(new ReleasePreview.Result.Released(stored), next);
    }

    private void serveMade(LiveRelease next) {
        serving.lock();
        try {
            serve(next);
        } finally {
            serving.unlock();
        }
    }

    private void serve(LiveRelease next) {
        revisions.reload();
        live = next;
        ready = null;
        takenBack = null;
        served.run();
        backfill.wake();
    }
}
