package sandpiper.server.manage.activity;

import io.micrometer.core.instrument.MeterRegistry;
import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.record.Query;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.manage.record.RecordAccess;

/** Where things stand. */
@RestController
@RequestMapping("/manage/v1")
public class StatusController {
    private static final int LATEST = 12;

    private final Engine engine;
    private final MeterRegistry meters;

    StatusController(Engine engine, MeterRegistry meters) {
        this.engine = engine;
        this.meters = meters;
    }

    /** One object and how many records it has. */
    record ObjectCount(String name, String plural, long inUse, long retired) {}

    /** One change of late. */
    record Latest(
            String object,
            String label,
            String record,
            String operation,
            String at,
            String by,
            String via) {}

    /** A formula that is being worked out again for records that were there; share from 0 to 1. */
    record Working(String formula, double share) {}

    /** Files of records, each counted once however many records have it. */
    record FileCount(long files, long bytes) {}

    /**
     * A process of the service that works on the data.
     *
     * @param name of its machine, with its number there
     * @param since in RFC 3339
     * @param own whether it is the one that answers
     */
    record Sharer(String name, String since, boolean own) {}

    /**
     * Several processes on one database.
     *
     * @param conflicts transactions this one did again since others changed the same
     * @param disconnects transactions this one did again since a connection was lost
     */
    record Sharing(List<Sharer> processes, long conflicts, long disconnects) {}

    /**
     * An instance at a glance. {@code storedIn} is what keeps the data, with its version; {@code
     * release} is 0 before the first; {@code sharing} is for data in a database; {@code files} is
     * for those alone who see all records.
     */
    record Status(
            String version,
            String storedIn,
            @Nullable Sharing sharing,
            int release,
            int changedFiles,
            int errors,
            int services,
            List<Working> working,
            List<ObjectCount> objects,
            @Nullable FileCount files,
            List<Latest> latest) {}

    @Operation(summary = "Where things stand")
    @GetMapping("/status")
    Status status(@AuthenticationPrincipal Actor actor) {
        DutyCheck.requireRecords(actor);
        var live = engine.live();
        var preview = engine.releases().preview();
        var counts =
                engine.records()
                        .read((now, session) ->
                                now.release().objects().stream()
                                        .filter(object -> actor.on(object.name()).may(Action.VIEW))
                                        .map(object -> count(actor, now, session, object))
                                        .toList());
        int errors =
                (int)
                        preview.diagnostics().stream()
                                .filter(diagnostic ->
                                        diagnostic.severity()
                                                == sandpiper.model.Diagnostic.Severity.ERROR)
                                .count();
        return new Status(
                "0.1.0",
                engine.storedIn(),
                engine.isInFile() ? null : sharing(),
                live.number(),
                preview.files().size(),
                errors,
                live.release().services().size(),
                engine.releases().recomputing().stream()
                        .map(one -> new Working(one.formula(), one.share()))
                        .toList(),
                counts,
                actor.seesEverything() ? files() : null,
                engine.records().latestChanges(LATEST).stream()
                        .filter(entry -> actor.on(entry.object()).seesAll())
                        .map(this::latest)
                        .toList());
    }

    private Sharing sharing() {
        return new Sharing(
                engine.peers().stream()
                        .map(one -> new Sharer(one.name(), one.since().toString(), one.own()))
                        .toList(),
                counted("sandpiper.commit.conflicts"),
                counted("sandpiper.commit.disconnects"));
    }

    private long counted(String name) {
        return (long) meters.get(name).counter().count();
    }

    private FileCount files() {
        var total = engine.records().files();
        return new FileCount(total.files(), total.bytes());
    }

    /** Only what somebody sees is counted. */
    private ObjectCount count(Actor actor, LiveRelease live, Session session, ObjectType object) {
        if (actor.on(object.name()).seesAll()) {
            var count = engine.records().count(live, session, object);
            return new ObjectCount(object.name(), object.plural(), count.inUse(), count.retired());
        }
        return new ObjectCount(
                object.name(),
                object.plural(),
                counted(actor, live, session, object, Query.Retired.WITHOUT),
                counted(actor, live, session, object, Query.Retired.ONLY));
    }

    private long counted(
            Actor actor,
            LiveRelease live,
            Session session,
            ObjectType object,
            Query.Retired retired) {
        var scope = RecordAccess.of(actor, live, object).scope(Action.VIEW);
        var query =
                new Query(
                        object,
                        FieldTree.EMPTY,
                        engine.records().condition(live, object, scope),
                        null,
                        List.of(),
                        false,
                        null,
                        0,
                        1,
                        true,
                        retired);
        return Objects.requireNonNull(engine.records().page(live, session, query).total());
    }

    private Latest latest(HistoryStorage.Entry entry) {
        var label =
                engine.live()
                        .release()
                        .find(entry.object())
                        .map(object -> object.label())
                        .orElse(entry.object());
        return new Latest(
                entry.object(),
                label,
                entry.record().toString(),
                entry.operation(),
                entry.at().toString(),
                entry.by(),
                entry.via());
    }
}
