package sandpiper.model.logic;

import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/** One step from a record to others, as an expression takes it. */
public sealed interface Hop {
    /** Along a reference of a record, or of its line items when there is a part. */
    record Along(ObjectType from, @Nullable Part part, Field field) implements Hop {}

    /** Into the line items of a part. */
    record Into(Part part) implements Hop {}

    /** To the records that refer to it. */
    record Back(ObjectType from, Field field) implements Hop {}

    /** To all records of an object, whatever they have to do with it. */
    record Everywhere(ObjectType to) implements Hop {}
}
