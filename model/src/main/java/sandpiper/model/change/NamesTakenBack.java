package sandpiper.model.change;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;

/**
 * The names that the objects, parts and fields of an earlier release have now, after all that was
 * done since: what was renamed meanwhile is found by its new name. What was removed and made anew
 * by the same name is taken for the same.
 */
final class NamesTakenBack implements FormerNames {
    private final Map<String, String> names = new HashMap<>();

    /**
     * @param way from the earlier release to the one that is live, both included
     */
    NamesTakenBack(List<Release> way) {
        var earlier = way.getFirst();
        earlier.objects().forEach(this::begin);
        for (int i = 1; i < way.size(); i++) {
            follow(ReleaseChange.between(way.get(i - 1), way.get(i)));
        }
        var live = way.getLast();
        var claimed = new HashSet<>(names.values());
        earlier.objects().forEach(object -> findAgain(object, live, claimed));
    }

    /** Keys are places in the earlier release, values those of the same things later. */
    private static String place(String object, @Nullable String part, @Nullable String field) {
        return "%s/%s/%s"
                .formatted(
                        object,
                        Objects.requireNonNullElse(part, ""),
                        Objects.requireNonNullElse(field, ""));
    }

    private void begin(ObjectType object) {
        put(place(object.name(), null, null));
        object.fields().forEach(field -> put(place(object.name(), null, field.name())));
        for (var part : object.parts()) {
            put(place(object.name(), part.name(), null));
            part.fields().forEach(field -> put(place(object.name(), part.name(), field.name())));
        }
    }

    private void put(String place) {
        names.put(place, place);
    }

    private void follow(ReleaseChange change) {
        var moved = new HashMap<String, String>();
        for (var object : change.objects()) {
            var before = object.before();
            var after = object.after();
            if (before == null || after == null) {
                continue;
            }
            moved.put(place(before.name(), null, null), place(after.name(), null, null));
            fields(before.name(), null, after.name(), null, object.fields(), moved);
            for (var part : object.parts()) {
                var partBefore = part.before();
                var partAfter = part.after();
                if (partBefore != null && partAfter != null) {
                    moved.put(
                            place(before.name(), partBefore.name(), null),
                            place(after.name(), partAfter.name(), null));
                    fields(
                            before.name(),
                            partBefore.name(),
                            after.name(),
                            partAfter.name(),
                            part.fields(),
                            moved);
                }
            }
        }
        names.replaceAll((_, there) -> moved.getOrDefault(there, ""));
        names.values().removeIf(String::isEmpty);
    }

    private static void fields(
            String objectBefore,
            @Nullable String partBefore,
            String objectAfter,
            @Nullable String partAfter,
            List<FieldChange> fields,
            Map<String, String> moved) {
        for (var field : fields) {
            var before = field.before();
            var after = field.after();
            if (before != null && after != null) {
                moved.put(
                        place(objectBefore, partBefore, before.name()),
                        place(objectAfter, partAfter, after.name()));
            }
        }
    }

    /** What was removed and is there again by the same name. */
    private void findAgain(ObjectType object, Release live, Set<String> claimed) {
        var name = object.name();
        if (live.find(name).isPresent()) {
            claim(place(name, null, null), place(name, null, null), claimed);
        }
        var now = of(object) == null ? null : live.object(Objects.requireNonNull(of(object)));
        if (now == null) {
            return;
        }
        for (var field : object.fields()) {
            if (now.fields().find(field.name()).isPresent()) {
                claim(
                        place(name, null, field.name()),
                        place(now.name(), null, field.name()),
                        claimed);
            }
        }
        for (var part : object.parts()) {
            findAgain(object, part, now, claimed);
        }
    }

    private void findAgain(ObjectType object, Part part, ObjectType now, Set<String> claimed) {
        if (now.part(part.name()).isPresent()) {
            claim(
                    place(object.name(), part.name(), null),
                    place(now.name(), part.name(), null),
                    claimed);
        }
        var partNow = of(object, part);
        if (partNow == null) {
            return;
        }
        var fields = now.part(partNow).orElseThrow().fields();
        for (var field : part.fields()) {
            if (fields.find(field.name()).isPresent()) {
                claim(
                        place(object.name(), part.name(), field.name()),
                        place(now.name(), partNow, field.name()),
                        claimed);
            }
        }
    }

    private void claim(String earlier, String now, Set<String> claimed) {
        if (!names.containsKey(earlier) && claimed.add(now)) {
            names.put(earlier, now);
        }
    }

    private @Nullable String piece(String place, int piece) {
        var there = names.get(place);
        return there == null ? null : there.split("/", -1)[piece];
    }

    @Override
    public @Nullable String of(ObjectType object) {
        return piece(place(object.name(), null, null), 0);
    }

    @Override
    public @Nullable String of(ObjectType object, Part part) {
        return piece(place(object.name(), part.name(), null), 1);
    }

    @Override
    public @Nullable String of(ObjectType object, @Nullable Part part, Field field) {
        return piece(place(object.name(), part == null ? null : part.name(), field.name()), 2);
    }
}
