package sandpiper.server.manage.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.model.definition.TravelSource;
import sandpiper.model.definition.Travels;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.RouteType;

/**
 * A route, as the console shows it.
 *
 * @param services names of services whose resources show what travels
 * @param travellers the fields that travel along it
 */
public record RouteView(
        String name,
        String packageName,
        String label,
        @Nullable String describe,
        List<RouteStepView> steps,
        List<String> services,
        List<TravellerView> travellers) {

    /** A step, from one object to another or to line items. */
    record RouteStepView(String from, String to, @Nullable String part, List<String> through) {}

    /**
     * A field that travels.
     *
     * @param object that has it of its own
     * @param reaches the objects and parts that get it, in the order of the steps
     */
    record TravellerView(
            String object, String field, String label, boolean follows, List<String> reaches) {}

    static RouteView of(Release release, RouteType route) {
        var travellers = new ArrayList<TravellerView>();
        for (var object : release.objects()) {
            for (var field : object.fields()) {
                field.logic().travels().stream()
                        .filter(one -> one.route().equals(route.name()))
                        .map(one -> traveller(release, route, object, field, one))
                        .forEach(travellers::add);
            }
        }
        return new RouteView(
                route.name(),
                route.packageName(),
                route.label(),
                route.describe(),
                route.steps().stream()
                        .map(step ->
                                new RouteStepView(
                                        step.from(), step.to(), step.part(), step.through()))
                        .toList(),
                route.services(),
                travellers);
    }

    private static TravellerView traveller(
            Release release, RouteType route, ObjectType object, Field field, Travels travels) {
        return new TravellerView(
                object.name(),
                field.name(),
                field.label(),
                travels.follows(),
                route.steps().stream()
                        .filter(step -> {
                            var made = made(release, step, field.name());
                            return made != null
                                    && made.route().equals(route.name())
                                    && root(release, made).equals(object.name());
                        })
                        .map(RouteType.Step::target)
                        .toList());
    }

    private static @Nullable TravelSource made(Release release, RouteType.Step step, String field) {
        var object = release.object(step.to());
        Fields fields =
                step.part() == null
                        ? object.fields()
                        : object.part(step.part()).orElseThrow().fields();
        return fields.find(field).map(one -> one.logic().source()).orElse(null);
    }

    /** The object that has the field of its own. */
    private static String root(Release release, TravelSource source) {
        var at = source;
        for (var next = source; next != null; next = before(release, next)) {
            at = next;
        }
        return at.object();
    }

    private static @Nullable TravelSource before(Release release, TravelSource source) {
        return release.object(source.object()).fields().get(source.field()).logic().source();
    }

    /** Whether all of its objects are among some. */
    boolean isWithin(Set<String> objects) {
        return steps.stream()
                .flatMap(step -> Stream.of(step.from(), step.to()))
                .allMatch(objects::contains);
    }

    /** Without the fields somebody may not see. */
    RouteView seenBy(Actor actor) {
        return new RouteView(
                name,
                packageName,
                label,
                describe,
                steps,
                services,
                travellers.stream()
                        .filter(one -> !actor.on(one.object()).hidden().contains(one.field()))
                        .toList());
    }

    /** Where a field that a route made has its value from, or {@code null}. */
    record ComesFrom(String route, String object, String field, boolean follows) {
        static @Nullable ComesFrom of(Field field) {
            var source = field.logic().source();
            return source == null
                    ? null
                    : new ComesFrom(
                            source.route(), source.object(), source.field(), source.follows());
        }
    }
}
