package sandpiper.model.logic;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;

/** All compiled logic of a release. Immutable and safe to share between threads. */
public final class ReleaseLogic {
    private final Release release;
    private final Map<String, RecordCondition> conditions = new ConcurrentHashMap<>();
    private final Map<String, ObjectLogic> objects = new HashMap<>();
    private final Map<String, List<Watch>> watches = new HashMap<>();
    private final Map<String, List<Formula>> totals = new HashMap<>();

    private ReleaseLogic(
            Release release, List<ObjectLogic> logic, Map<String, List<Watch>> watches) {
        this.release = release;
        logic.forEach(one -> objects.put(one.object().name(), one));
        watches.forEach((object, list) -> this.watches.put(object, List.copyOf(list)));
        for (var one : logic) {
            for (var formula : one.formulas()) {
                var total = formula.total();
                if (total != null) {
                    totals.computeIfAbsent(total.items().name(), _ -> new ArrayList<>())
                            .add(formula);
                }
            }
        }
    }

    /** Compiles the logic of a release that passed its checks. */
    public static ReleaseLogic of(Release release) {
        var compiled = LogicCompiler.compile(release);
        return new ReleaseLogic(release, compiled.logic(), compiled.watches());
    }

    /** The logic of an object. */
    public ObjectLogic of(ObjectType object) {
        return Objects.requireNonNull(objects.get(object.name()));
    }

    /**
     * A condition on records of an object, compiled; the same one at each call.
     *
     * @throws IllegalArgumentException when the text is no condition a store can answer
     */
    public RecordCondition condition(ObjectType object, String text) {
        return conditions.computeIfAbsent(
                object.name() + '\0' + text, _ -> RecordCondition.of(release, object, text));
    }

    /** What reads records of an object from elsewhere. */
    public List<Watch> watchesOf(ObjectType object) {
        return watches.getOrDefault(object.name(), List.of());
    }

    /** Running totals that records of an object add to. */
    public List<Formula> totalsOver(ObjectType object) {
        return totals.getOrDefault(object.name(), List.of());
    }
}
