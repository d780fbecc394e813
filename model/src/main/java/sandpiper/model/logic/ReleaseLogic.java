package sandpiper.model.logic;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import sandpiper.logic.filter.Filters;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;

/** All compiled logic of a release. Immutable and safe to share between threads. */
public final class ReleaseLogic {
    private final Release release;
    private final Map<String, RecordCondition> conditions = new ConcurrentHashMap<>();
    private final Map<String, ObjectLogic> objects = new HashMap<>();
    private final Map<String, List<Watch>> watches = new HashMap<>();
    private final Map<String, List<Formula>> totals = new HashMap<>();
    private final Map<String, List<CompiledHandler>> handlers = new HashMap<>();
    private final Map<String, CompiledHandler> handlersByName = new LinkedHashMap<>();
    private final Map<String, CompiledSchedule> schedules = new LinkedHashMap<>();

    private final Filters filters = new Filters();

    private ReleaseLogic(
            Release release, List<ObjectLogic> logic, Map<String, List<Watch>> watches) {
        this.release = release;
        logic.forEach(one -> objects.put(one.object().name(), one));
        watches.forEach((object, list) -> this.watches.put(object, List.copyOf(list)));
        for (var one : logic) {
            one.schedules().forEach(schedule -> schedules.put(schedule.name(), schedule));
            for (var handler : one.handlers()) {
                handlersByName.put(handler.name(), handler);
                for (var event : handler.events()) {
                    handlers.computeIfAbsent(event.name(), _ -> new ArrayList<>()).add(handler);
                }
            }
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
     * A condition on records of an object, compiled; the same one at each call. One that does not
     * fit this release holds for no record.
     */
    public RecordCondition condition(ObjectType object, String text) {
        return conditions.computeIfAbsent(
                object.name() + '\0' + text, _ -> RecordCondition.of(release, object, text));
    }

    /** Filters that callers asked for while this release is served. */
    public Filters filters() {
        return filters;
    }

    /** What reads records of an object from elsewhere. */
    public List<Watch> watchesOf(ObjectType object) {
        return watches.getOrDefault(object.name(), List.of());
    }

    /** The handlers that hear an event. */
    public List<CompiledHandler> handlersOf(String event) {
        return handlers.getOrDefault(event, List.of());
    }

    /** The handler of a name such as {@code Stay.tellPortOffice}, or nothing. */
    public Optional<CompiledHandler> handler(String name) {
        return Optional.ofNullable(handlersByName.get(name));
    }

    /** All schedules. */
    public List<CompiledSchedule> schedules() {
        return List.copyOf(schedules.values());
    }

    /** The schedule of a name such as {@code Vessel.remindOfInsurance}, or nothing. */
    public Optional<CompiledSchedule> schedule(String name) {
        return Optional.ofNullable(schedules.get(name));
    }

    /** Running totals that records of an object add to. */
    public List<Formula> totalsOver(ObjectType object) {
        return totals.getOrDefault(object.name(), List.of());
    }
}
