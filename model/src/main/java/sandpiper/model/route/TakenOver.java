package sandpiper.model.route;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.TravelSource;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;

/**
 * A field that takes its values over along a route.
 *
 * @param part the part whose line items have it, or {@code null}
 * @param depth how many took them over before, on the way from where they were given
 * @param derived whether a formula works out where they begin
 */
public record TakenOver(
        ObjectType object, @Nullable Part part, Field field, int depth, boolean derived) {

    /** From where it has them. */
    public TravelSource source() {
        return Objects.requireNonNull(field.logic().source());
    }

    /** As people name it: {@code Stay.charges.costCentre}. */
    public String written() {
        return object.name() + "." + (part == null ? "" : part.name() + ".") + field.name();
    }

    /** All of a release, each behind those it takes its values from. */
    public static List<TakenOver> of(Release release) {
        var all = new ArrayList<TakenOver>();
        for (var object : release.objects()) {
            object.fields().forEach(field -> add(release, object, null, field, all));
            for (var part : object.parts()) {
                part.fields().forEach(field -> add(release, object, part, field, all));
            }
        }
        all.sort(Comparator.comparingInt(TakenOver::depth));
        return all;
    }

    private static void add(
            Release release,
            ObjectType object,
            @Nullable Part part,
            Field field,
            List<TakenOver> all) {
        if (field.logic().isTakenOver()) {
            int depth = 0;
            var at = field;
            for (var source = at.logic().source(); source != null; source = at.logic().source()) {
                depth++;
                at = release.object(source.object()).fields().get(source.field());
            }
            all.add(new TakenOver(object, part, field, depth, at.isDerived()));
        }
    }
}
