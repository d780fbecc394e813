package sandpiper.model.change;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;

/**
 * The names as the newer of two releases has them: the same, or what is written at {@code was}
 * where nothing has that name any more.
 */
record WrittenNames(Release before, Release after) implements FormerNames {
    private Optional<ObjectType> former(ObjectType object) {
        var same = before.find(object.name());
        var was = object.was();
        return same.isPresent() || was == null || after.find(was).isPresent()
                ? same
                : before.find(was);
    }

    private Optional<Part> former(ObjectType object, Part part) {
        return former(object).flatMap(one -> one.part(part.name()).or(() -> part(one, part.was())));
    }

    private static Optional<Part> part(ObjectType object, @Nullable String name) {
        return name == null ? Optional.empty() : object.part(name);
    }

    @Override
    public @Nullable String of(ObjectType object) {
        return former(object).map(ObjectType::name).orElse(null);
    }

    @Override
    public @Nullable String of(ObjectType object, Part part) {
        return former(object, part).map(Part::name).orElse(null);
    }

    @Override
    public @Nullable String of(ObjectType object, @Nullable Part part, Field field) {
        var older =
                part == null
                        ? former(object).map(ObjectType::fields)
                        : former(object, part).map(Part::fields);
        var newer = part == null ? object.fields() : part.fields();
        return older.flatMap(fields -> former(fields, newer, field)).map(Field::name).orElse(null);
    }

    private static Optional<Field> former(Fields older, Fields newer, Field field) {
        var same = older.find(field.name());
        var was = field.was();
        return same.isPresent() || was == null || newer.find(was).isPresent()
                ? same
                : older.find(was);
    }
}
