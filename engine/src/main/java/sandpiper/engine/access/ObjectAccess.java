package sandpiper.engine.access;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;

/**
 * What somebody may do with the records of one object, all grants together: what one of them allows
 * is allowed.
 *
 * @param scopes the records each action reaches; an action that is missing is not granted
 * @param hidden fields, and parts, that are not seen
 * @param readOnly fields, and parts, that are not changed
 * @param notGiven fields, and parts, that are not given to new records
 */
public record ObjectAccess(
        Map<Action, RecordScope> scopes,
        Set<String> hidden,
        Set<String> readOnly,
        Set<String> notGiven) {
    public ObjectAccess {
        scopes = Map.copyOf(scopes);
        hidden = Set.copyOf(hidden);
        readOnly = Set.copyOf(readOnly);
        notGiven = Set.copyOf(notGiven);
    }

    static ObjectAccess of(boolean everything, List<ObjectGrant> grants, String object) {
        var scopes = new EnumMap<Action, RecordScope>(Action.class);
        for (var action : Action.values()) {
            if (everything) {
                scopes.put(action, RecordScope.ALL);
                continue;
            }
            var granting =
                    grants.stream()
                            .filter(grant ->
                                    grant.covers(object) && grant.actions().contains(action))
                            .toList();
            if (!granting.isEmpty()) {
                scopes.put(
                        action,
                        RecordScope.any(granting.stream().map(ObjectGrant::where).toList()));
            }
        }
        var covering = grants.stream().filter(grant -> grant.covers(object)).toList();
        return new ObjectAccess(
                scopes,
                everything ? Set.of() : inAll(covering, Action.VIEW, ObjectGrant::hidden),
                everything ? Set.of() : inAll(covering, Action.EDIT, ObjectGrant::readOnly),
                everything ? Set.of() : inAll(covering, Action.CREATE, ObjectGrant::readOnly));
    }

    /** What every grant of an action names: one that does not name it lifts it. */
    private static Set<String> inAll(
            List<ObjectGrant> grants, Action action, Function<ObjectGrant, List<String>> names) {
        var granting = grants.stream().filter(grant -> grant.actions().contains(action)).toList();
        return granting.isEmpty()
                ? Set.of()
                : names.apply(granting.getFirst()).stream()
                        .filter(name ->
                                granting.stream().allMatch(one -> names.apply(one).contains(name)))
                        .collect(Collectors.toSet());
    }

    public boolean may(Action action) {
        return scopes.containsKey(action);
    }

    /** The records an action reaches, or nothing when it is not granted. */
    public Optional<RecordScope> scope(Action action) {
        return Optional.ofNullable(scopes.get(action));
    }

    /** Whether every record can be seen. */
    public boolean seesAll() {
        return RecordScope.ALL.equals(scopes.get(Action.VIEW));
    }

    /** What of a tree is seen. */
    public FieldTree seen(FieldTree tree) {
        return without(tree, hidden);
    }

    /** What of a tree can be changed. */
    public FieldTree writable(FieldTree tree) {
        return without(seen(tree), readOnly);
    }

    /** What of a tree can be given to a new record. */
    public FieldTree givable(FieldTree tree) {
        return without(seen(tree), notGiven);
    }

    private static FieldTree without(FieldTree tree, Set<String> names) {
        return names.isEmpty()
                ? tree
                : new FieldTree(
                        tree.paths().stream().filter(path -> !names.contains(first(path))).toList(),
                        tree.parts().stream()
                                .filter(part -> !names.contains(part.part().name()))
                                .toList(),
                        tree.annotated());
    }

    private static String first(FieldPath path) {
        return path.steps().getFirst().name();
    }
}
