package sandpiper.engine.definition;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Grouping;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.read.RecordFinder;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.write.RecordWrites;
import sandpiper.model.change.SeedChange;
import sandpiper.model.definition.SeedFile;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;

/**
 * Makes the records that come with packages, as part of the release that brings them. A record that
 * is there is only changed when nobody but packages has had a hand in it; one that was brought
 * before and taken away by people stays away.
 */
public final class SeedLoader {
    private static final String VIA = "release";

    /** Rows of one release that are told to be wrong. */
    private static final int TOLD = 20;

    private final RecordWrites writes;

    /** Writes as everybody does, with all checks and rules. */
    public SeedLoader(RecordWrites writes) {
        this.writes = writes;
    }

    /** A row that is to be written. */
    private record Wanted(SeedFile file, SeedFile.Row row, RecordCommand command) {
        Request request() {
            var by =
                    new Actor(
                            Actor.Kind.SYSTEM,
                            by(file.packageName()),
                            Set.of(Duty.values()),
                            List.of());
            return new Request(command, by, VIA, true);
        }

        /** A new record without the references it can do without; nothing when it has none. */
        Optional<Wanted> withoutReferences() {
            if (!(command instanceof RecordCommand.Create create)) {
                return Optional.empty();
            }
            var values = new HashMap<String, @Nullable Object>(create.values());
            boolean had =
                    create.object().fields().stream()
                                    .filter(field -> field.isReference() && !field.required())
                                    .filter(field -> !create.object().key().contains(field.name()))
                                    .map(field -> values.remove(field.name()))
                                    .filter(Objects::nonNull)
                                    .count()
                            > 0;
            return had
                    ? Optional.of(
                            new Wanted(
                                    file,
                                    row,
                                    new RecordCommand.Create(
                                            create.object(), create.writable(), values)))
                    : Optional.empty();
        }

        /** The references that a record was made without. */
        Wanted referring(Wanted bare) {
            var whole = (RecordCommand.Create) command;
            var values = new HashMap<String, @Nullable Object>(whole.values());
            values.keySet().removeAll(((RecordCommand.Create) bare.command()).values().keySet());
            return new Wanted(
                    file,
                    row,
                    new RecordCommand.Change(
                            whole.object(), whole.writable(), row.key(), values, null));
        }
    }

    /** One that could not be written. */
    private record Stuck(Wanted wanted, Outcome.Refused refused) {}

    /**
     * Writes what is new or other than in the release before.
     *
     * @return why rows were refused, a sentence each with its place; then the release is not done
     */
    List<String> load(Transaction transaction, Release before, LiveRelease next) {
        var wanted = new ArrayList<Wanted>();
        for (var change : SeedChange.of(before, next.release())) {
            var object = next.release().object(change.after().object());
            change.added()
                    .forEach(row -> add(wanted, transaction, next, object, change, row, true));
            change.changed()
                    .forEach(row -> add(wanted, transaction, next, object, change, row, false));
        }
        var stuck = written(transaction, next, wanted);
        // Rows that refer to each other in a circle are made first, and refer to each other then.
        var later = new ArrayList<Wanted>();
        var first = new ArrayList<Wanted>();
        for (var one : stuck) {
            one.wanted()
                    .withoutReferences()
                    .ifPresent(bare -> {
                        first.add(bare);
                        later.add(one.wanted().referring(bare));
                    });
        }
        if (first.size() < stuck.size() || !written(transaction, next, first).isEmpty()) {
            return told(stuck);
        }
        return told(written(transaction, next, later));
    }

    /** Writes rows, and tells which cannot be, with why. */
    private List<Stuck> written(Transaction transaction, LiveRelease next, List<Wanted> wanted) {
        List<Wanted> open = wanted;
        List<Stuck> refused = List.of();
        // Rows may refer to rows that come later; they are tried again as long as that helps.
        for (int left = -1; !open.isEmpty() && open.size() != left; ) {
            left = open.size();
            var outcomes =
                    writes.write(
                            next,
                            transaction,
                            open.stream().map(Wanted::request).toList(),
                            Grouping.EACH,
                            RecordWrites.TurnListener.NONE);
            var still = new ArrayList<Stuck>();
            for (int i = 0; i < outcomes.size(); i++) {
                if (outcomes.get(i) instanceof Outcome.Refused no) {
                    still.add(new Stuck(open.get(i), no));
                }
            }
            refused = still;
            open = still.stream().map(Stuck::wanted).toList();
        }
        return refused;
    }

    private static List<String> told(List<Stuck> refused) {
        return refused.stream().limit(TOLD).map(SeedLoader::said).toList();
    }

    private void add(
            List<Wanted> open,
            Transaction transaction,
            LiveRelease next,
            ObjectType object,
            SeedChange change,
            SeedFile.Row row,
            boolean isNew) {
        var there = RecordFinder.find(next.records(), transaction, object, row.key());
        var fields = next.release().everythingOf(object);
        if (there.isEmpty()) {
            if (isNew) {
                open.add(
                        new Wanted(
                                change.after(),
                                row,
                                new RecordCommand.Create(
                                        object, fields, Map.copyOf(row.values()))));
            }
            return;
        }
        var annotated = new FieldTree(List.of(), List.of(), true);
        boolean untouched =
                next.records()
                        .view(transaction, object, there.get().number(), annotated)
                        .filter(view ->
                                view.stamps() != null && isOfPackages(view.stamps().changedBy()))
                        .isPresent();
        if (untouched) {
            open.add(
                    new Wanted(
                            change.after(),
                            row,
                            new RecordCommand.Change(
                                    object, fields, row.key(), whole(change, row), null)));
        }
    }

    /** What has a column but no value is empty from now on. */
    private static Map<String, @Nullable Object> whole(SeedChange change, SeedFile.Row row) {
        var values = new HashMap<String, @Nullable Object>(row.values());
        change.after().fields().forEach(field -> values.putIfAbsent(field, null));
        return values;
    }

    /** How a package is called among those who change records. */
    private static String by(String packageName) {
        return "package " + packageName;
    }

    private static boolean isOfPackages(String name) {
        return name.startsWith(by(""));
    }

    private static String said(Stuck stuck) {
        return "%s:%d: %s"
                .formatted(
                        stuck.wanted().file().path(),
                        stuck.wanted().row().line(),
                        String.join(
                                " ",
                                stuck.refused().faults().stream().map(Fault::message).toList()));
    }
}
