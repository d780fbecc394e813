package sandpiper.model.logic;

import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.run.Code;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/**
 * What works a field out.
 *
 * @param rank its place in an order in which each formula comes behind those it reads
 * @param part the part whose line items have the field, or {@code null}
 * @param watched whether it reads records that refer to its own, so that it is worked out again
 *     only when something it reads changes; otherwise whenever its own record does
 * @param ownFields what a watched formula reads of its own record besides
 * @param ownParts the parts of its own record whose line items a watched formula reads
 * @param total keeps it right by difference, or {@code null} when it must be worked out anew
 */
public record Formula(
        int rank,
        ObjectType object,
        @Nullable Part part,
        Field field,
        CheckedTerm checked,
        Code code,
        boolean watched,
        Set<Field> ownFields,
        Set<Part> ownParts,
        @Nullable RunningTotal total) {
    public Formula {
        ownFields = Set.copyOf(ownFields);
        ownParts = Set.copyOf(ownParts);
    }

    /** As people name it: {@code Stay.charges.net}. */
    public String written() {
        return object.name() + "." + (part == null ? "" : part.name() + ".") + field.name();
    }
}
