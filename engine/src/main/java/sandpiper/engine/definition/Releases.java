package sandpiper.engine.definition;

import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.BiPredicate;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.access.Actor;
import sandpiper.engine.call.Called;
import sandpiper.engine.call.Use;
import sandpiper.engine.port.DefinitionStorage.StoredRelease;
import sandpiper.engine.port.RecomputationStorage.Open;
import sandpiper.engine.port.SchemaStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.write.FormulaBackfill;
import sandpiper.engine.writer.WriteJob;
import sandpiper.engine.writer.Writer;
import sandpiper.model.change.ContractBreak;
import sandpiper.model.change.ContractBreaks;
import sandpiper.model.change.ContractGrowth;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.check.Definitions;
import sandpiper.model.logic.ReleaseLogic;
import sandpiper.model.release.Release;

/** The numbered states of the definitions. The newest one is live. */
public final class Releases implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Releases.class);

    /** Tables of millions of records take minutes to change. */
    private static final Duration LONGEST_RELEASE = Duration.ofMinutes(30);

    /** How far back calls of a service count as of late. */
    private static final int OF_LATE_DAYS = 30;

    private final Storage storage;
    private final Drafts drafts;
    private final Writer writer;
    private final Clock clock;
    private final FormulaBackfillJob backfill;
    private final ContractRevisions revisions;
    private volatile LiveRelease live;
    private volatile @Nullable Ready ready;

    /** What was compiled ahead, so that nobody who writes has to wait for it. */
    private record Ready(Map<String, String> files, LiveRelease release) {}

    /** Loads the newest release. */
    public Releases(Storage storage, Drafts drafts, Writer writer, Clock clock) {
        this.storage = storage;
        this.drafts = drafts;
        this.writer = writer;
        this.clock = clock;
        this.live = newest();
        this.revisions = new ContractRevisions(storage, writer, clock);
        revisions.load(live.number(), live.release());
        this.backfill = new FormulaBackfillJob(storage, this::live, writer, clock);
    }

    /** What callers have who took a contract before. */
    public ContractRevisions revisions() {
        return revisions;
    }

    /** Formulas that are still being worked out for records that were there. */
    public List<FormulaBackfillJob.Progress> recomputing() {
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

    /** What releasing the draft would mean; changes nothing. */
    public ReleasePreview preview() {
        try (var session = storage.snapshot()) {
            return preview(session, drafts.files(session));
        }
    }

    private ReleasePreview preview(Session session, Map<String, String> files) {
        var checked = drafts.check(files);
        var changedFiles = changedFiles(session, files);
        var release = checked.release();
        if (release.isEmpty()) {
            return new ReleasePreview(
                    checked.diagnostics(),
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    changedFiles);
        }
        var change = ReleaseChange.between(live.release(), release.get());
        SchemaStorage.Effects effects = storage.schema().effects(session, change);
        return new ReleasePreview(
                checked.diagnostics(),
                Stream.concat(change.sentences().stream(), growths(session, release.get()).stream())
                        .toList(),
                effects.losses(),
                effects.obstacles(),
                breaks(session, release.get()),
                changedFiles);
    }

    /** What would break, with who has used it of late. */
    private List<String> breaks(Session session, Release release) {
        return withUses(
                session,
                ContractBreaks.between(live.release(), release),
                ContractBreak::sentence,
                Releases::isOf);
    }

    /** What grows, with who has used it of late. */
    private List<String> growths(Session session, Release release) {
        return withUses(
                session,
                ContractGrowth.between(live.release(), release),
                ContractGrowth::sentence,
                Releases::isOf);
    }

    /** Sentences with the calls of late that each is about. */
    private <T> List<String> withUses(
            Session session,
            List<T> found,
            Function<T, String> sentence,
            BiPredicate<T, Called> meant) {
        if (found.isEmpty()) {
            return List.of();
        }
        var today = LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC);
        var uses = storage.traffic().since(session, today.minusDays(OF_LATE_DAYS));
        return found.stream()
                .map(one ->
                        "%s %s"
                                .formatted(
                                        sentence.apply(one),
                                        usedBy(called -> meant.test(one, called), uses)))
                .toList();
    }

    private static boolean isOf(ContractGrowth growth, Called called) {
        return called.service().equals(growth.service())
                && called.version() == growth.version()
                && called.resource().equals(growth.resource());
    }

    private static boolean isOf(ContractBreak broken, Called called) {
        return called.service().equals(broken.service())
                && called.version() == broken.version()
                && isMeant(broken.resource(), called.resource())
                && isMeant(broken.operation(), called.operation());
    }

    private static String usedBy(Predicate<Called> meant, List<Use> uses) {
        var callers = new TreeMap<String, Long>();
        for (var use : uses) {
            if (meant.test(use.called())) {
                callers.merge(use.called().caller(), use.calls(), Long::sum);
            }
        }
        if (callers.isEmpty()) {
            return "Nobody has called it in the last %d days.".formatted(OF_LATE_DAYS);
        }
        var words = new ArrayList<String>();
        callers.forEach((caller, calls) ->
                words.add("%s (%,d %s)".formatted(caller, calls, calls == 1 ? "time" : "times")));
        return "In the last %d days it was called by %s."
                .formatted(OF_LATE_DAYS, String.join(", ", words));
    }

    private static boolean isMeant(String broken, String called) {
        return broken.isEmpty() || broken.equals(called);
    }

    private List<ReleasePreview.FileChange> changedFiles(
            Session session, Map<String, String> files) {
        var released = storage.definitions().filesOf(session, live.number());
        var paths = new TreeSet<>(files.keySet());
        paths.addAll(released.keySet());
        var changes = new ArrayList<ReleasePreview.FileChange>();
        for (var path : paths) {
            var before = released.getOrDefault(path, "");
            var after = files.getOrDefault(path, "");
            if (!before.equals(after)) {
                changes.add(new ReleasePreview.FileChange(path, before, after));
            }
        }
        return changes;
    }

    /**
     * Releases the draft: the tables follow, and from the next request on the new definitions are
     * served. One transaction; requests go on meanwhile.
     *
     * @param note what the release is for
     * @param accepted what of the preview's bad news is accepted
     */
    public ReleasePreview.Result release(String note, Accepted accepted, Actor actor) {
        makeReady(drafts.files());
        var attempt =
                writer.submitAlone(
                        new WriteJob<Attempt>() {
                            @Override
                            public Attempt run(Transaction transaction) {
                                return releaseIn(transaction, note, accepted, actor);
                            }

                            @Override
                            public boolean keeps(Attempt attempt) {
                                return attempt.next() != null;
                            }
                        },
                        this::serve);
        return Writer.await(attempt, LONGEST_RELEASE).result();
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
            sentences.add("Data would be lost; accept that to go on.");
        }
        if (!preview.breaks().isEmpty() && !accepted.breaks()) {
            sentences.add(
                    "Published contracts would break; make a new version of the service, or accept"
                            + " that.");
        }
        return sentences;
    }

    private Attempt releaseIn(
            Transaction transaction, String note, Accepted accepted, Actor actor) {
        var files = drafts.files(transaction);
        var preview = preview(transaction, files);
        if (preview.hasErrors()) {
            return refused(preview, "The draft has errors; nothing was released.");
        }
        if (!preview.obstacles().isEmpty()) {
            return refused(preview, "The data stands in the way; nothing was released.");
        }
        var unaccepted = unaccepted(preview, accepted);
        if (!unaccepted.isEmpty()) {
            return refused(preview, String.join(" ", unaccepted) + " Nothing was released.");
        }
        if (preview.files().isEmpty()) {
            return refused(preview, "The draft is the same as the live release.");
        }
        var next = makeReady(files).orElseThrow();
        var change = ReleaseChange.between(live.release(), next.release());
        storage.schema().apply(transaction, change);
        new FormulaBackfill(next, transaction, storage.events(), actor, clock.instant())
                .run(change)
                .forEach(formula ->
                        storage.recomputations().put(transaction, new Open(formula.written(), 0)));
        var stored =
                new StoredRelease(
                        live.number() + 1, clock.instant(), actor.name(), note, preview.changes());
        storage.definitions().putRelease(transaction, stored, files);
        revisions.record(transaction, next.number(), next.release());
        return new Attempt(new ReleasePreview.Result.Released(stored), next);
    }

    private void serve(Attempt attempt) {
        revisions.reload();
        live = Objects.requireNonNull(attempt.next());
        ready = null;
        backfill.wake();
        LOG.info("Release {} is live", live.number());
    }
}
