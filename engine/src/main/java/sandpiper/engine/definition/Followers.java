package sandpiper.engine.definition;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.AccessEntry;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.Role;
import sandpiper.engine.access.ServiceGrant;
import sandpiper.engine.event.Webhook;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.port.ViewStorage;
import sandpiper.engine.port.WebhookStorage;
import sandpiper.engine.record.NamedView;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.model.change.ObjectChange;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ServiceType;

/**
 * What names objects and fields without being a definition: grants of roles and clients, views of
 * lists, and webhooks. It follows what a release renames; where it cannot, people are told
 * beforehand.
 */
record Followers(AccessStorage access, ViewStorage views, WebhookStorage webhooks, Clock clock) {
    /**
     * What was renamed.
     *
     * @param objects new names by old ones
     * @param fields new names of fields and parts by old ones, by the old name of their object
     */
    private record Renames(Map<String, String> objects, Map<String, Map<String, String>> fields) {
        static Renames of(ReleaseChange change) {
            var objects = new HashMap<String, String>();
            var fields = new HashMap<String, Map<String, String>>();
            for (var object : change.objects()) {
                var before = object.before();
                var after = object.after();
                if (before != null && after != null) {
                    objects.put(before.name(), after.name());
                    fields.put(before.name(), names(object));
                }
            }
            return new Renames(objects, fields);
        }

        private static Map<String, String> names(ObjectChange object) {
            var names = new HashMap<String, String>();
            for (var field : object.fields()) {
                var before = field.before();
                var after = field.after();
                if (before != null && after != null && !before.name().equals(after.name())) {
                    names.put(before.name(), after.name());
                }
            }
            for (var part : object.parts()) {
                var before = part.before();
                var after = part.after();
                if (before != null && after != null && !before.name().equals(after.name())) {
                    names.put(before.name(), after.name());
                }
            }
            return names;
        }

        String object(String name) {
            return objects.getOrDefault(name, name);
        }

        /** An event such as {@code Stay.changed} goes by its object. */
        String event(String name) {
            int dot = name.indexOf('.');
            return dot < 0 ? name : object(name.substring(0, dot)) + name.substring(dot);
        }

        /** The names of fields of an object, or of all objects, in a grant. */
        List<String> guarded(String object, List<String> names) {
            if (!object.equals(ObjectGrant.EVERY)) {
                var own = fields.getOrDefault(object, Map.of());
                return names.stream().map(name -> own.getOrDefault(name, name)).toList();
            }
            // In other objects the field may still be called as it was.
            var all = new LinkedHashSet<>(names);
            fields.values()
                    .forEach(own ->
                            names.stream()
                                    .map(own::get)
                                    .filter(Objects::nonNull)
                                    .forEach(all::add));
            return List.copyOf(all);
        }

        /** A path such as {@code vessel.name} or {@code -arrival}, by its first step. */
        String path(String object, String path) {
            var sign = path.startsWith("-") ? "-" : "";
            var steps = path.substring(sign.length()).split("\\.", 2);
            var own = fields.getOrDefault(object, Map.of());
            var first = own.getOrDefault(steps[0], steps[0]);
            return sign + first + (steps.length == 1 ? "" : "." + steps[1]);
        }
    }

    /** Gives everything the new names. */
    void follow(Transaction transaction, ReleaseChange change, Actor by) {
        var renames = Renames.of(change);
        for (var role : access.roles(transaction)) {
            var objects = role.objects().stream().map(grant -> renamed(grant, renames)).toList();
            if (!objects.equals(role.objects())) {
                access.putRole(
                        transaction,
                        new Role(
                                role.name(),
                                role.label(),
                                role.describe(),
                                role.duties(),
                                role.services(),
                                objects,
                                role.from()));
                access.addEntry(
                        transaction,
                        new AccessEntry(
                                clock.instant(),
                                by.name(),
                                "role set",
                                role.name(),
                                "renamed by a release"));
            }
        }
        for (var webhook : webhooks.all(transaction)) {
            var events = webhook.events().stream().map(renames::event).toList();
            if (!events.equals(webhook.events())) {
                webhooks.put(transaction, webhook.hearing(events));
            }
        }
        for (var view : views.all(transaction)) {
            var followed = followed(view, renames);
            if (!followed.equals(view)) {
                views.remove(transaction, view.object(), view.owner(), view.name());
                views.put(transaction, followed);
            }
        }
    }

    private static NamedView followed(NamedView view, Renames renames) {
        var object = view.object();
        var sort = view.sort();
        var chart = view.chart();
        var sum = chart == null ? null : chart.sum();
        return new NamedView(
                renames.object(object),
                view.owner(),
                view.name(),
                view.filter(),
                view.search(),
                sort == null ? null : renames.path(object, sort),
                view.retired(),
                view.columns().stream().map(column -> renames.path(object, column)).toList(),
                chart == null
                        ? null
                        : new NamedView.Chart(
                                chart.kind(),
                                renames.path(object, chart.by()),
                                chart.step(),
                                sum == null ? null : renames.path(object, sum)));
    }

    /** What takes new names, a sentence each. */
    List<String> following(Session session, ReleaseChange change) {
        var renames = Renames.of(change);
        var sentences = new ArrayList<String>();
        for (var role : access.roles(session)) {
            if (role.objects().stream().anyMatch(grant -> !renamed(grant, renames).equals(grant))) {
                sentences.add("Role %s takes the new names.".formatted(role.name()));
            }
        }
        for (var webhook : webhooks.all(session)) {
            if (webhook.events().stream().anyMatch(one -> !renames.event(one).equals(one))) {
                sentences.add("The webhook %s takes the new names.".formatted(webhook.name()));
            }
        }
        for (var view : views.all(session)) {
            if (!followed(view, renames).equals(view)) {
                sentences.add("%s takes the new names.".formatted(named(view)));
            }
        }
        return sentences;
    }

    /** How somebody calls a view of their own is nobody else's business. */
    private static String named(NamedView view) {
        return view.owner() == null
                ? "The view \"%s\" of %s".formatted(view.name(), view.object())
                : "A view of %s on %s".formatted(view.owner(), view.object());
    }

    private static ObjectGrant renamed(ObjectGrant grant, Renames renames) {
        return new ObjectGrant(
                renames.object(grant.object()),
                grant.actions(),
                grant.where(),
                renames.guarded(grant.object(), grant.hidden()),
                renames.guarded(grant.object(), grant.readOnly()));
    }

    /** What cannot follow, a sentence each. */
    List<String> left(Session session, ReleaseChange change) {
        var sentences = new LinkedHashSet<String>();
        var search = new Search(change, sentences);
        for (var role : access.roles(session)) {
            var name = "Role %s".formatted(role.name());
            role.objects().forEach(grant -> search.grant(name, grant));
            search.services(name, role.services());
        }
        access.clients(session)
                .forEach(client ->
                        search.services("Client %s".formatted(client.name()), client.grants()));
        views.all(session).forEach(search::view);
        webhooks.all(session).forEach(search::webhook);
        return List.copyOf(sentences);
    }

    /** Looks for what a change leaves behind. */
    private record Search(ReleaseChange change, Set<String> sentences) {
        private @Nullable ObjectChange changeOf(String object) {
            return change.objects().stream()
                    .filter(one -> {
                        var before = one.before();
                        return before != null && before.name().equals(object);
                    })
                    .findFirst()
                    .orElse(null);
        }

        void grant(String whose, ObjectGrant grant) {
            if (grant.object().equals(ObjectGrant.EVERY)) {
                return;
            }
            var object = changeOf(grant.object());
            if (object == null) {
                return;
            }
            if (object.after() == null) {
                sentences.add(
                        "%s has a grant on %s, which is removed.".formatted(whose, grant.object()));
            }
            condition(whose + " has a grant", object, grant.where());
        }

        /** Grants on services with a condition on what their resource shows. */
        void services(String whose, List<String> grants) {
            for (var grant : ServiceGrant.readAll(grants)) {
                var where = grant.where();
                if (where == null) {
                    withdrawn(whose, grant);
                    continue;
                }
                for (var object : shown(grant)) {
                    var own = changeOf(object.name());
                    if (own != null) {
                        condition(
                                "%s has a grant on %s/%s"
                                        .formatted(whose, grant.service(), grant.resource()),
                                own,
                                where);
                    }
                }
            }
        }

        private void withdrawn(String whose, ServiceGrant grant) {
            boolean isNamed =
                    !grant.service().equals(ServiceGrant.EVERY)
                            && !grant.resource().equals(ServiceGrant.EVERY);
            if (isNamed
                    && hasResource(change.before(), grant)
                    && !hasResource(change.after(), grant)) {
                sentences.add(
                        "%s has a grant on %s/%s, which is withdrawn."
                                .formatted(whose, grant.service(), grant.resource()));
            }
        }

        private static boolean hasResource(Release release, ServiceGrant grant) {
            return services(release, grant)
                    .anyMatch(service -> service.resource(grant.resource()).isPresent());
        }

        private static Stream<ServiceType> services(Release release, ServiceGrant grant) {
            return release.services().stream()
                    .filter(service ->
                            grant.service().equals(ServiceGrant.EVERY)
                                    || grant.service().equals(service.name()));
        }

        private List<ObjectType> shown(ServiceGrant grant) {
            return services(change.before(), grant)
                    .flatMap(service -> service.resources().stream())
                    .filter(resource ->
                            grant.resource().equals(ServiceGrant.EVERY)
                                    || grant.resource().equals(resource.name()))
                    .map(resource -> resource.object())
                    .distinct()
                    .toList();
        }

        /** What a webhook heard so far and will not hear, whatever it is called. */
        void webhook(Webhook webhook) {
            var renames = Renames.of(change);
            webhook.events().stream()
                    .filter(event -> change.before().event(event).isPresent())
                    .filter(event -> change.after().event(renames.event(event)).isEmpty())
                    .forEach(event ->
                            sentences.add(
                                    "The webhook %s hears %s, which is not raised any more."
                                            .formatted(webhook.name(), event)));
        }

        void view(NamedView view) {
            var object = changeOf(view.object());
            if (object == null) {
                return;
            }
            var named = named(view);
            if (object.after() == null) {
                sentences.add("%s goes with its object.".formatted(named));
                return;
            }
            var gone = gone(object);
            var paths = new ArrayList<>(view.columns());
            Stream.of(
                            view.sort(),
                            view.chart() == null ? null : view.chart().by(),
                            view.chart() == null ? null : view.chart().sum())
                    .filter(Objects::nonNull)
                    .map(path -> path.startsWith("-") ? path.substring(1) : path)
                    .forEach(paths::add);
            paths.stream()
                    .map(path -> path.split("\\.", 2)[0])
                    .filter(gone::contains)
                    .distinct()
                    .forEach(field ->
                            sentences.add(
                                    "%s names %s, which is removed.".formatted(named, field)));
            condition(named + " has a filter", object, view.filter());
        }

        private static Set<String> gone(ObjectChange object) {
            var gone = new LinkedHashSet<String>();
            object.fields()
                    .forEach(field -> {
                        var before = field.before();
                        if (before != null && field.after() == null) {
                            gone.add(before.name());
                        }
                    });
            return gone;
        }

        /** A condition that was right and is so no longer. */
        private void condition(String whose, ObjectChange object, @Nullable String text) {
            var before = object.before();
            var after = object.after();
            if (text != null
                    && before != null
                    && after != null
                    && isRight(change.before(), before, text)
                    && !isRight(change.after(), after, text)) {
                // What a condition says may be for those alone who look after access.
                sentences.add(
                        "%s whose condition no longer fits %s.".formatted(whose, after.name()));
            }
        }

        private static boolean isRight(Release release, ObjectType object, String text) {
            return Checker.condition(
                            text, NameContext.of(release.world(), release.recordType(object)))
                    .isAccepted();
        }
    }
}
