package sandpiper.engine.definition;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.stream.Stream;
import sandpiper.engine.port.SchemaStorage.Aside;
import sandpiper.engine.port.SchemaStorage.Keeping;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.write.Backfill;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.release.ObjectType;

/** Finds out what a release would mean: for data, contracts, logic, and all that goes by names. */
record ReleasePreviews(
        Storage storage,
        Drafts drafts,
        ContractUses contracts,
        KeptAside kept,
        Followers followers,
        RolesOfPackages roles,
        Clock clock) {
    /**
     * What is told of it.
     *
     * @param next compiles what would be live, for what only that tells
     * @param forgets whether values of what is removed are dropped at once
     */
    ReleasePreview of(
            Session session,
            LiveRelease live,
            Wanted wanted,
            Supplier<Optional<LiveRelease>> next,
            boolean forgets) {
        var checked = drafts.check(wanted.files());
        var changedFiles = changedFiles(session, live, wanted.files());
        var release = checked.release();
        if (release.isEmpty()) {
            return new ReleasePreview(
                    checked.diagnostics(),
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    changedFiles);
        }
        var change = wanted.change(live.release(), release.get());
        var effects =
                storage.schema().effects(session, change, aside(session, live, change, forgets));
        return new ReleasePreview(
                checked.diagnostics(),
                Stream.of(
                                change.sentences(),
                                effects.comebacks(),
                                contracts.growths(session, live.release(), release.get()))
                        .flatMap(List::stream)
                        .toList(),
                effects.losses(),
                joined(effects.obstacles(), roles.obstacles(session, release.get())),
                contracts.breaks(session, live.release(), release.get()),
                joined(
                        recalculated(session, live, next, change),
                        followers.following(session, change)),
                joined(followers.left(session, change), roles.left(session, release.get())),
                changedFiles);
    }

    /** Fields that are worked out for records there are, a sentence each. */
    private static List<String> recalculated(
            Session session,
            LiveRelease live,
            Supplier<Optional<LiveRelease>> compiled,
            ReleaseChange change) {
        var next = compiled.get();
        if (next.isEmpty()) {
            return List.of();
        }
        var sentences = new ArrayList<String>();
        // Counting a large table takes a while, so each is counted once.
        var counts = new HashMap<String, Long>();
        for (var field : Backfill.affected(next.get(), change)) {
            long records =
                    counts.computeIfAbsent(
                            field.object().name(),
                            _ -> count(session, live, change, field.object()));
            if (records > 0) {
                sentences.add(
                        "%s %s for %,d %s of %s."
                                .formatted(
                                        field.written(),
                                        field.told(),
                                        records,
                                        records == 1 ? "record" : "records",
                                        field.object().name()));
            }
        }
        return sentences;
    }

    private static long count(
            Session session, LiveRelease live, ReleaseChange change, ObjectType object) {
        return change.formerly(object)
                .map(before -> live.records().count(session, before))
                .map(count -> count.inUse() + count.retired())
                .orElse(0L);
    }

    private static List<String> joined(List<String> some, List<String> others) {
        return Stream.concat(some.stream(), others.stream()).toList();
    }

    /** What is kept aside by it, and what comes back. */
    Aside aside(Session session, LiveRelease live, ReleaseChange change, boolean forgets) {
        return new Aside(
                forgets ? null : new Keeping(live.number(), clock.instant()),
                kept.comebacks(session, change));
    }

    private List<ReleasePreview.FileChange> changedFiles(
            Session session, LiveRelease live, Map<String, String> files) {
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
}
