package sandpiper.server.manage.activity;

import io.swagger.v3.oas.annotations.Operation;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.call.Use;
import sandpiper.engine.definition.ContractRevisions;
import sandpiper.engine.port.DefinitionStorage.StoredRelease;
import sandpiper.engine.port.DefinitionStorage.StoredRevision;
import sandpiper.model.contract.AnsweredShape;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.traffic.Traffic;

/** Which revisions of a contract are still called, and ends those that need not be. */
@RestController
@RequestMapping("/manage/v1/contracts/{service:[a-z0-9-]+}/v{version:\\d{1,3}}/revisions")
public class RevisionController {
    private static final int DAYS = 30;

    private final Engine engine;
    private final Traffic traffic;

    RevisionController(Engine engine, Traffic traffic) {
        this.engine = engine;
        this.traffic = traffic;
    }

    /** Who named a revision in the last 30 days, and how often. */
    public record RevisionCaller(String caller, long calls, String last) {}

    /**
     * A revision of a contract.
     *
     * @param number of the release in which answers came to be so
     * @param at when that was released, or {@code null} when that is not known
     * @param gained what answers have that they had not before, as {@code stays: vessel.name}
     * @param newest whether it is what a contract is of that is taken now
     * @param endedAt when it was ended, or {@code null} while it is answered
     * @param endedBy who ended it, or {@code null}
     */
    public record RevisionView(
            int number,
            @Nullable String at,
            List<String> gained,
            boolean newest,
            @Nullable String endedAt,
            @Nullable String endedBy,
            List<RevisionCaller> callers) {}

    /** All revisions of a service's contract, newest first. */
    @Operation(summary = "All revisions of a service's contract, newest first")
    @GetMapping
    List<RevisionView> revisions(
            @PathVariable String service,
            @PathVariable int version,
            @AuthenticationPrincipal Actor actor) {
        if (!actor.has(Duty.AUDIT)) {
            DutyCheck.require(actor, Duty.DESIGN);
        }
        var revisions = known(service, version);
        traffic.store();
        var first =
                LocalDate.ofInstant(engine.clock().instant(), ZoneOffset.UTC).minusDays(DAYS - 1L);
        var uses = engine.calls().since(first, 0).uses();
        var released = new HashMap<Integer, StoredRelease>();
        engine.releases().all().forEach(one -> released.put(one.number(), one));
        var views = new ArrayList<RevisionView>();
        for (int i = revisions.size() - 1; i >= 0; i--) {
            var one = revisions.get(i);
            var release = released.get(one.number());
            views.add(
                    new RevisionView(
                            one.number(),
                            release == null ? null : release.at().toString(),
                            i == 0 ? List.of() : gained(revisions.get(i - 1), one),
                            i == revisions.size() - 1,
                            one.endedAt() == null ? null : one.endedAt().toString(),
                            one.endedBy(),
                            callers(one, uses)));
        }
        return views;
    }

    private ContractRevisions revisions() {
        return engine.releases().revisions();
    }

    private List<StoredRevision> known(String service, int version) {
        var revisions = revisions().of(service, version);
        if (revisions.isEmpty()) {
            throw new ProblemException(
                    HttpStatus.NOT_FOUND,
                    "There is no service %s v%d.".formatted(service, version));
        }
        return revisions;
    }

    private static List<String> gained(StoredRevision before, StoredRevision after) {
        var old = new AnsweredShape(new TreeSet<>(before.places()));
        var now = new AnsweredShape(new TreeSet<>(after.places()));
        var gained = new ArrayList<String>();
        now.resources()
                .forEach(resource -> {
                    var fields = now.besides(old, resource);
                    if (!fields.isEmpty()) {
                        gained.add("%s: %s".formatted(resource, String.join(", ", fields)));
                    }
                });
        return gained;
    }

    private static List<RevisionCaller> callers(StoredRevision revision, List<Use> uses) {
        var callers = new TreeMap<String, RevisionCaller>();
        for (var use : uses) {
            var called = use.called();
            if (called.service().equals(revision.service())
                    && called.version() == revision.version()
                    && called.revision() == revision.number()) {
                callers.merge(
                        called.caller(),
                        new RevisionCaller(called.caller(), use.calls(), use.last().toString()),
                        (one, other) ->
                                new RevisionCaller(
                                        one.caller(),
                                        one.calls() + other.calls(),
                                        one.last().compareTo(other.last()) > 0
                                                ? one.last()
                                                : other.last()));
            }
        }
        return List.copyOf(callers.values());
    }

    /** Ends a revision: who still names it is refused. */
    @Operation(summary = "Ends a revision")
    @DeleteMapping("/{revision:\\d{1,9}}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(
            @PathVariable String service,
            @PathVariable int version,
            @PathVariable int revision,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        if (known(service, version).getLast().number() == revision) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "Revision %d is the newest of %s v%d; only those before it can be ended."
                            .formatted(revision, service, version));
        }
        revisions().end(service, version, revision, actor);
    }
}
