package sandpiper.model.logic;

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
 * @param watched whether it reads other records, so that it is worked out again only when one of
 *     them changes; otherwise whenever its own record does
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
        @Nullable RunningTotal total) {

    /** As people name it: {@code Stay.charges.net}. */
    public String written() {
        return object.name() + "." + (part == null ? "" : part.name() + ".") + field.name();
    }
}
