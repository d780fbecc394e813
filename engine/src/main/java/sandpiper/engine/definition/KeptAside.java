package sandpiper.engine.definition;

import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.Comeback;
import sandpiper.engine.port.KeptStorage.Kept;
import sandpiper.engine.port.KeptStorage.Place;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.writer.Transactions;
import sandpiper.model.change.FieldChange;
import sandpiper.model.change.ObjectChange;
import sandpiper.model.change.PartChange;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;

/** Values that releases took out of use, for as long as they can come back. */
public final class KeptAside {
    /** How long values are kept aside. */
    public static final Duration KEPT = Duration.ofDays(30);

    private final Storage storage;
    private final Transactions transactions;
    private final Clock clock;

    KeptAside(Storage storage, Transactions transactions, Clock clock) {
        this.storage = storage;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** All that is kept aside, newest first. */
    public List<Kept> all() {
        return transactions.read(session -> storage.kept().all(session));
    }

    /** Drops values for good; tells whether they were there. */
    public boolean forget(long number) {
        return transactions.write(transaction -> storage.kept().forget(transaction, number));
    }

    /** Drops what has been kept for long enough. */
    public void forgetOld() {
        var until = clock.instant().minus(KEPT);
        var old = all().stream().filter(kept -> kept.at().isBefore(until)).toList();
        if (!old.isEmpty()) {
            transactions.write(transaction -> {
                old.forEach(kept -> storage.kept().forget(transaction, kept.number()));
                return true;
            });
        }
    }

    /** What would come back with a change. */
    List<Comeback> comebacks(Session session, ReleaseChange change) {
        var all = storage.kept().all(session);
        if (all.isEmpty()) {
            return List.of();
        }
        var search = new Search(session, all, new HashMap<>(), new ArrayList<>());
        change.objects().forEach(search::find);
        return search.found;
    }

    /**
     * Looks for what fits to a change.
     *
     * @param releases those that were read before, by number
     */
    private final class Search {
        private final Session session;
        private final List<Kept> all;
        private final Map<Integer, Optional<Release>> releases;
        private final List<Comeback> found;

        Search(
                Session session,
                List<Kept> all,
                Map<Integer, Optional<Release>> releases,
                List<Comeback> found) {
            this.session = session;
            this.all = all;
            this.releases = releases;
            this.found = found;
        }

        void find(ObjectChange change) {
            var after = change.after();
            if (after == null) {
                return;
            }
            // What is kept aside follows a new name only when the change is done.
            var before = change.before();
            var known = before == null ? after.name() : before.name();
            var whole = before == null ? newest(new Place(known, null, null)) : null;
            var then = whole == null ? null : object(whole);
            if (whole != null && then != null) {
                come(whole, after, null, then.fields(), after.fields());
            }
            values(
                    new Place(known, null, null),
                    after,
                    null,
                    change.fields(),
                    then == null ? null : then.fields());
            for (var part : change.parts()) {
                find(known, after, part, whole);
            }
        }

        /** What was kept aside last under a name. */
        private @Nullable Kept newest(Place place) {
            return all.stream().filter(kept -> kept.now().equals(place)).findFirst().orElse(null);
        }

        /**
         * @param known what the object is called before the change
         * @param whole the records that come back with it, or {@code null} when they were there
         */
        private void find(
                String known, ObjectType object, PartChange change, @Nullable Kept whole) {
            var after = change.after();
            if (after == null) {
                return;
            }
            var before = change.before();
            var items = before == null ? newest(new Place(known, after.name(), null)) : null;
            // Line items belong to the records that went with them.
            if (items != null && whole != null && items.release() != whole.release()) {
                items = null;
            }
            var then = items == null ? null : part(items);
            if (items != null && then != null) {
                come(items, object, after, then.fields(), after.fields());
            }
            var place = new Place(known, before == null ? after.name() : before.name(), null);
            values(place, object, after, change.fields(), then == null ? null : then.fields());
        }

        private void come(
                Kept kept, ObjectType object, @Nullable Part part, Fields then, Fields now) {
            var fields = new ArrayList<FieldChange>();
            for (var field : now) {
                then.find(field.name())
                        .filter(former -> !former.onRead() && !field.onRead())
                        .ifPresent(former -> fields.add(new FieldChange(former, field)));
            }
            found.add(new Comeback(kept, object, part, fields));
        }

        /**
         * The values of fields that are added.
         *
         * @param known what the object and the part are called before the change
         * @param coming the fields that come back with their records already
         */
        private void values(
                Place known,
                ObjectType object,
                @Nullable Part part,
                List<FieldChange> fields,
                @Nullable Fields coming) {
            for (var change : fields) {
                languages(known, object, part, change);
                var after = change.after();
                if (after == null
                        || change.before() != null
                        || after.isDerived()
                        || (coming != null && coming.find(after.name()).isPresent())) {
                    continue;
                }
                var kept = newest(new Place(known.object(), known.part(), after.name()));
                var then = kept == null ? null : field(kept);
                if (kept != null && then != null) {
                    found.add(
                            new Comeback(
                                    kept, object, part, List.of(new FieldChange(then, after))));
                }
            }
        }

        /** Texts in a language that a field has again. */
        private void languages(
                Place known, ObjectType object, @Nullable Part part, FieldChange change) {
            for (var language : change.languagesCome()) {
                var before = Objects.requireNonNull(change.before());
                var written = Place.inLanguage(before.name(), language);
                var kept = newest(new Place(known.object(), known.part(), written));
                var then = kept == null ? null : field(kept);
                if (kept != null && then != null) {
                    var now = Objects.requireNonNull(change.after()).inLanguage(language);
                    found.add(
                            new Comeback(kept, object, part, List.of(new FieldChange(then, now))));
                }
            }
        }

        private @Nullable ObjectType object(Kept kept) {
            return releases.computeIfAbsent(kept.release(), this::read)
                    .flatMap(release -> release.find(kept.place().object()))
                    .orElse(null);
        }

        private Optional<Release> read(int number) {
            return Definitions.reread(storage.definitions().filesOf(session, number)).release();
        }

        private @Nullable Part part(Kept kept) {
            var object = object(kept);
            return object == null
                    ? null
                    : object.part(Objects.requireNonNull(kept.place().part())).orElse(null);
        }

        /** The field as it was, or what it was in one language. */
        private @Nullable Field field(Kept kept) {
            var written = Objects.requireNonNull(kept.place().field());
            int language = written.indexOf('.');
            var name = language < 0 ? written : written.substring(0, language);
            var field = fields(kept).flatMap(fields -> fields.find(name)).orElse(null);
            return field == null || language < 0
                    ? field
                    : field.inLanguage(written.substring(language + 1));
        }

        private Optional<Fields> fields(Kept kept) {
            return kept.place().part() == null
                    ? Optional.ofNullable(object(kept)).map(ObjectType::fields)
                    : Optional.ofNullable(part(kept)).map(Part::fields);
        }
    }
}
