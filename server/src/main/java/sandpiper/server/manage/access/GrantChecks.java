package sandpiper.server.manage.access;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.ServiceGrant;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.contract.GrantedOperation;
import sandpiper.model.release.ObjectType;
import sandpiper.server.problem.Problem.Wrong;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.Conditions;

/** Refuses grants on what there is not, so that a slip of the pen is noticed when it is made. */
public final class GrantChecks {
    private static final String CODE = "SP4000";

    private final LiveRelease live;
    private final java.time.Clock clock;
    private final List<Wrong> wrong = new ArrayList<>();

    GrantChecks(LiveRelease live, java.time.Clock clock) {
        this.live = live;
        this.clock = clock;
    }

    /** Checks grants on operations of services. */
    GrantChecks services(String list, List<String> grants) {
        for (int i = 0; i < grants.size(); i++) {
            var at = FaultPath.of(list).then(i);
            var text = grants.get(i);
            ServiceGrant.read(text)
                    .ifPresentOrElse(
                            grant -> service(at, grant),
                            () ->
                                    wrong(
                                            at,
                                            "%s is no grant; write service/resource/operation, as in berth-desk/stays/read, with * for all, and behind it where and a condition if it is to reach some records only."
                                                    .formatted(Quoted.of(text))));
        }
        return this;
    }

    private void service(FaultPath at, ServiceGrant grant) {
        switch (GrantedOperation.of(
                live.release().services(),
                grant.service(),
                grant.resource(),
                grant.operation(),
                grant.where() != null)) {
            case GrantedOperation.Known(var objects) ->
                    objects.forEach(object -> condition(at, object, grant.where()));
            case GrantedOperation.Unknown(var kind, var name, var known) ->
                    unknown(at, kind, name, known);
            case GrantedOperation.Unconditional(var resource) ->
                    wrong(
                            at,
                            "A condition is about records of a resource; %s cannot have one."
                                    .formatted(resource));
        }
    }

    /** Checks grants on objects. */
    GrantChecks objects(String list, List<ObjectGrant> grants) {
        for (int i = 0; i < grants.size(); i++) {
            var at = FaultPath.of(list).then(i);
            var grant = grants.get(i);
            if (grant.object().equals(ObjectGrant.EVERY)) {
                if (grant.where() != null
                        || !grant.hidden().isEmpty()
                        || !grant.readOnly().isEmpty()) {
                    wrong(at, "A grant on every object has no condition and names no fields.");
                }
                continue;
            }
            live.release()
                    .find(grant.object())
                    .ifPresentOrElse(
                            object -> object(at, object, grant),
                            () ->
                                    unknown(
                                            at.then("object"),
                                            "object",
                                            grant.object(),
                                            live.release().objects().stream()
                                                    .map(ObjectType::name)
                                                    .toList()));
        }
        return this;
    }

    private void object(FaultPath at, ObjectType object, ObjectGrant grant) {
        condition(at.then("where"), object, grant.where());
        var names = new ArrayList<>(object.fields().names());
        object.parts().forEach(part -> names.add(part.name()));
        Stream.concat(grant.hidden().stream(), grant.readOnly().stream())
                .filter(name -> !names.contains(name))
                .forEach(name -> unknown(at, "field", name, names));
        grant.hidden().stream()
                .filter(object.key()::contains)
                .forEach(name ->
                        wrong(
                                at.then("hidden"),
                                "%s is the key and cannot be hidden.".formatted(name)));
    }

    private void condition(FaultPath at, ObjectType object, @Nullable String where) {
        if (where == null) {
            return;
        }
        try {
            Conditions.read(
                    "condition",
                    where,
                    live.release().recordType(object),
                    clock.withZone(object.zone()));
        } catch (ProblemException e) {
            wrong(at, e.problem().detail());
        }
    }

    private void unknown(FaultPath at, String kind, String name, List<String> known) {
        wrong(
                at,
                "There is no %s %s.%s"
                        .formatted(
                                kind,
                                Quoted.of(name),
                                Nearest.to(name, known)
                                        .map(near -> " Did you mean %s?".formatted(near))
                                        .orElse(
                                                known.isEmpty()
                                                        ? ""
                                                        : " There %s %s."
                                                                .formatted(
                                                                        known.size() == 1
                                                                                ? "is"
                                                                                : "are",
                                                                        String.join(
                                                                                ", ", known)))));
    }

    private void wrong(FaultPath at, String message) {
        wrong.add(new Wrong(at, CODE, message));
    }

    /**
     * Says what was found.
     *
     * @throws ProblemException when something was
     */
    void finish() {
        if (!wrong.isEmpty()) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    wrong.size() == 1
                            ? wrong.getFirst().message()
                            : "%d things are wrong; each is listed with its place."
                                    .formatted(wrong.size()),
                    wrong);
        }
    }
}
