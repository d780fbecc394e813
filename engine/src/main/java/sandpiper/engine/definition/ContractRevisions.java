package sandpiper.engine.definition;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.DefinitionStorage.StoredRevision;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.service.DeniedException;
import sandpiper.engine.service.DeniedException.Reason;
import sandpiper.engine.writer.Writer;
import sandpiper.model.contract.AnsweredShape;
import sandpiper.model.release.Release;
import sandpiper.model.release.ServiceType;

/**
 * The revisions of contracts. A revision has the number of the release in which the answers of a
 * service came to be as they are; who took a contract then is answered what it says, whatever was
 * added later, until the revision is ended. Thread-safe.
 */
public final class ContractRevisions {
    private final Storage storage;
    private final Writer writer;
    private final Clock clock;

    /** By {@link ServiceType#titled()}, oldest first. */
    private volatile Map<String, List<StoredRevision>> known = Map.of();

    private final Map<Asked, ServiceType> narrowed = new ConcurrentHashMap<>();

    /** A service of a release as it was in a revision. */
    private record Asked(int release, String service, int revision) {}

    ContractRevisions(Storage storage, Writer writer, Clock clock) {
        this.storage = storage;
        this.writer = writer;
        this.clock = clock;
    }

    /** Knows what is stored, and keeps what a service from before revisions had not. */
    void load(int number, Release release) {
        reload();
        if (!missing(number, release).isEmpty()) {
            writer.write(transaction -> {
                record(transaction, number, release);
                return true;
            });
            reload();
        }
    }

    /** Reads what is stored. */
    public void reload() {
        try (var session = storage.snapshot()) {
            known =
                    storage.definitions().revisions(session).stream()
                            .collect(
                                    Collectors.groupingBy(
                                            one -> titled(one.service(), one.version())));
        }
        narrowed.clear();
    }

    private static String titled(String service, int version) {
        return service + " v" + version;
    }

    /** Keeps a revision of each service whose answers are others than before. */
    void record(Transaction transaction, int number, Release release) {
        missing(number, release)
                .forEach(revision -> storage.definitions().putRevision(transaction, revision));
    }

    private List<StoredRevision> missing(int number, Release release) {
        var missing = new ArrayList<StoredRevision>();
        for (var service : release.services()) {
            var places = List.copyOf(new TreeSet<>(AnsweredShape.of(service).places()));
            var before = of(service.name(), service.version());
            if (before.isEmpty() || !before.getLast().places().equals(places)) {
                missing.add(
                        new StoredRevision(
                                service.name(), service.version(), number, places, null, null));
            }
        }
        return missing;
    }

    /** All revisions of a service, oldest first; none when it was never published. */
    public List<StoredRevision> of(String service, int version) {
        return known.getOrDefault(titled(service, version), List.of());
    }

    /** The revision that a contract is of when it is taken now; 0 when nothing is released. */
    public int newest(ServiceType service) {
        var all = of(service.name(), service.version());
        return all.isEmpty() ? 0 : all.getLast().number();
    }

    /**
     * A service as a contract of a revision has it.
     *
     * @throws DeniedException when there is no such revision, or it was ended
     */
    public ServiceType at(LiveRelease live, ServiceType service, int number) {
        var revision = revision(service, number);
        if (revision.number() == newest(service)) {
            return service;
        }
        return narrowed.computeIfAbsent(
                new Asked(live.number(), service.titled(), revision.number()),
                _ -> new AnsweredShape(new TreeSet<>(revision.places())).narrow(service));
    }

    /** What answers can hold of a contract of a revision. */
    public AnsweredShape shape(ServiceType service, int number) {
        return new AnsweredShape(new TreeSet<>(revision(service, number).places()));
    }

    private StoredRevision revision(ServiceType service, int number) {
        var all = of(service.name(), service.version());
        var found = all.stream().filter(one -> one.number() == number).findFirst();
        if (found.isEmpty()) {
            throw new DeniedException(
                    Reason.MEANINGLESS,
                    "%s has no revision %d; its contract is of revision %d."
                            .formatted(service.titled(), number, newest(service)));
        }
        if (found.get().endedAt() != null) {
            throw new DeniedException(
                    Reason.ENDED,
                    "Revision %d of %s was ended; take its contract anew, which is of revision %d."
                            .formatted(found.get().number(), service.titled(), newest(service)));
        }
        return found.get();
    }

    /**
     * Ends a revision: who names it is refused from then on.
     *
     * @throws DeniedException when there is none of that number, or it is the newest
     */
    public void end(String service, int version, int number, Actor actor) {
        var all = of(service, version);
        var found =
                all.stream()
                        .filter(one -> one.number() == number)
                        .findFirst()
                        .orElseThrow(() ->
                                new DeniedException(
                                        Reason.UNKNOWN,
                                        "%s has no revision %d."
                                                .formatted(titled(service, version), number)));
        if (found.equals(all.getLast())) {
            throw new DeniedException(
                    Reason.MEANINGLESS,
                    "Revision %d is the newest of %s; only those before it can be ended."
                            .formatted(number, titled(service, version)));
        }
        if (found.endedAt() != null) {
            return;
        }
        writer.write(transaction -> {
            storage.definitions()
                    .putRevision(
                            transaction,
                            new StoredRevision(
                                    service,
                                    version,
                                    number,
                                    found.places(),
                                    clock.instant(),
                                    actor.name()));
            return true;
        });
        reload();
    }
}
