package sandpiper.model.change;

import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/** By which names the objects, parts and fields of a release are known in the one before it. */
interface FormerNames {
    /** {@code null} when the object was not there. */
    @Nullable String of(ObjectType object);

    /** {@code null} when the part was not there. */
    @Nullable String of(ObjectType object, Part part);

    /**
     * {@code null} when the field was not there.
     *
     * @param part whose field it is, or {@code null} for one of the object itself
     */
    @Nullable String of(ObjectType object, @Nullable Part part, Field field);
}
