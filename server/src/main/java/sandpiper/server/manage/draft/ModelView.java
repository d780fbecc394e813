package sandpiper.server.manage.draft;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectAccess;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.model.definition.CheckDefinition;
import sandpiper.model.definition.Lifecycle;
import sandpiper.model.definition.PackageType;
import sandpiper.model.definition.RuleDefinition;
import sandpiper.model.definition.Trigger;
import sandpiper.model.definition.WhenUsed;
import sandpiper.model.layout.Labels;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;

/**
 * The objects of a release, as console and command line show them.
 *
 * @param source the draft, or the live release when the draft has errors
 */
public record ModelView(
        Source source,
        List<PackageView> packages,
        List<ObjectView> objects,
        List<EventView> events,
        List<RouteView> routes) {
    /** Which state is meant. */
    enum Source {
        LIVE,
        DRAFT,
        /** What could be understood of the draft, whatever is wrong with it. */
        OUTLINE
    }

    /** A package. */
    record PackageView(
            String name, String version, String label, @Nullable String describe, boolean sealed) {
        static PackageView of(PackageType definition) {
            return new PackageView(
                    definition.name(),
                    definition.version(),
                    definition.label(),
                    definition.describe(),
                    definition.sealed());
        }
    }

    /**
     * An object with all that a form and a list need.
     *
     * @param whenUsed what becomes of retiring a record that others use
     * @param actions what the one who asks may do with at least some of its records
     */
    record ObjectView(
            String name,
            String packageName,
            String label,
            String plural,
            @Nullable String describe,
            List<String> key,
            @Nullable String title,
            @Nullable String numbered,
            String removal,
            WhenUsed whenUsed,
            List<FieldView> fields,
            List<PartView> parts,
            List<InverseView> inverses,
            @Nullable LifecycleView lifecycle,
            List<CheckView> checks,
            List<RuleView> rules,
            List<ObjectFunctionView> functions,
            List<HandlerView> handlers,
            List<ScheduleView> schedules,
            LayoutView layout,
            List<ObjectGrant.Action> actions) {
        ObjectView seenBy(ObjectAccess access) {
            return new ObjectView(
                    name,
                    packageName,
                    label,
                    plural,
                    describe,
                    key,
                    title == null || access.hidden().contains(title) ? null : title,
                    numbered,
                    removal,
                    whenUsed,
                    fields.stream()
                            .filter(field -> !access.hidden().contains(field.name()))
                            .map(field ->
                                    access.readOnly().contains(field.name())
                                            ? field.onlySeen()
                                            : field)
                            .toList(),
                    parts.stream().filter(part -> !access.hidden().contains(part.name())).toList(),
                    inverses,
                    lifecycle,
                    checks,
                    rules,
                    functions,
                    handlers,
                    schedules,
                    layout.without(access.hidden()),
                    access.scopes().keySet().stream().sorted().toList());
        }
    }

    /** The states of a record and the transitions between them. */
    record LifecycleView(
            String field, String initial, List<String> states, List<TransitionView> transitions) {
        static LifecycleView of(String object, Lifecycle lifecycle, Labels labels) {
            return new LifecycleView(
                    lifecycle.field(),
                    lifecycle.initial(),
                    lifecycle.states(),
                    lifecycle.transitions().stream()
                            .map(one ->
                                    new TransitionView(
                                            one.name(),
                                            labels.transition(object, one.name(), one.label()),
                                            one.describe(),
                                            one.from(),
                                            one.to()))
                            .toList());
        }
    }

    /** A step from one state to another. */
    record TransitionView(
            String name, String label, @Nullable String describe, List<String> from, String to) {}

    /** A check as it is written. */
    record CheckView(
            String name,
            String that,
            String say,
            @Nullable String at,
            boolean warning,
            String on,
            List<String> before,
            String file) {
        static CheckView of(CheckDefinition check) {
            return new CheckView(
                    check.name(),
                    check.that().text(),
                    check.say().text(),
                    check.at() == null ? null : check.at().text(),
                    check.warning(),
                    check.on().equals(Trigger.ALWAYS) ? "" : check.on().written(),
                    check.before(),
                    check.that().origin().file());
        }
    }

    /** A rule as it is written. */
    record RuleView(
            String name,
            String label,
            @Nullable String describe,
            String on,
            @Nullable String when,
            String then,
            String file) {
        static RuleView of(RuleDefinition rule) {
            return new RuleView(
                    rule.name(),
                    rule.label(),
                    rule.describe(),
                    rule.on().written(),
                    rule.when() == null ? null : rule.when().text(),
                    rule.then().text(),
                    rule.then().origin().file());
        }
    }

    /** A part with its fields. */
    record PartView(String name, String label, @Nullable String describe, List<FieldView> fields) {}

    /** A list of records of another object that refer to this one. */
    record InverseView(
            @Nullable String name,
            String object,
            String plural,
            @Nullable String part,
            String field) {}

    static ModelView of(Release release, Source source) {
        return new ModelView(
                source,
                release.packages().stream().map(PackageView::of).toList(),
                release.objects().stream().map(object -> object(release, object)).toList(),
                release.events().stream().map(EventView::of).toList(),
                release.routes().stream().map(route -> RouteView.of(release, route)).toList());
    }

    /** Without the objects and fields somebody may not see. */
    ModelView seenBy(Actor actor) {
        var seen =
                objects.stream()
                        .filter(object -> !actor.on(object.name()).scopes().isEmpty())
                        .map(object -> object.seenBy(actor.on(object.name())))
                        .toList();
        var names = seen.stream().map(ObjectView::name).collect(Collectors.toSet());
        return new ModelView(
                source,
                packages,
                seen,
                events,
                routes.stream()
                        .filter(route -> route.isWithin(names))
                        .map(route -> route.seenBy(actor))
                        .toList());
    }

    private static ObjectView object(Release release, ObjectType object) {
        var numbering = object.numbering();
        var labels = release.labels();
        return new ObjectView(
                object.name(),
                object.packageName(),
                labels.object(object.name(), object.label()),
                labels.plural(object.name(), object.plural()),
                object.describe(),
                object.key(),
                object.titleField().map(Field::name).orElse(null),
                numbering == null ? null : numbering.field(),
                object.removal().name().toLowerCase(Locale.ROOT),
                object.whenUsed(),
                fields(labels, object.name(), "", object.fields()),
                object.parts().stream()
                        .map(part ->
                                new PartView(
                                        part.name(),
                                        labels.inside(object.name(), part.name(), part.label()),
                                        part.describe(),
                                        fields(
                                                labels,
                                                object.name(),
                                                part.name() + ".",
                                                part.fields())))
                        .toList(),
                release.referencesTo(object).stream()
                        .map(inverse ->
                                new InverseView(
                                        ((FieldType.Reference) inverse.field().type()).inverse(),
                                        inverse.from().name(),
                                        labels.plural(
                                                inverse.from().name(), inverse.from().plural()),
                                        inverse.part() == null ? null : inverse.part().name(),
                                        inverse.field().name()))
                        .toList(),
                object.lifecycle() == null
                        ? null
                        : LifecycleView.of(object.name(), object.lifecycle(), labels),
                object.checks().stream().map(CheckView::of).toList(),
                object.rules().stream().map(RuleView::of).toList(),
                object.functions().stream().map(one -> ObjectFunctionView.of(object, one)).toList(),
                object.handlers().stream().map(HandlerView::of).toList(),
                object.schedules().stream().map(ScheduleView::of).toList(),
                LayoutView.of(object),
                List.of(ObjectGrant.Action.values()));
    }

    private static List<FieldView> fields(
            Labels labels, String object, String prefix, Fields fields) {
        return fields.stream()
                .map(one -> FieldView.of(one).called(labels, object, prefix + one.name()))
                .toList();
    }
}
