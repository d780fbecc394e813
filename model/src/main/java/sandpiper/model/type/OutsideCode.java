package sandpiper.model.type;

import org.jspecify.annotations.Nullable;

/**
 * A code of an outside service. Two are the same when their codes are: a label that changed outside
 * is no change of a record.
 *
 * @param label what it was called when it was chosen; {@code null} when nobody has asked
 */
public record OutsideCode(String code, @Nullable String label) {
    /** One that nobody has asked about yet. */
    public static OutsideCode unseen(String code) {
        return new OutsideCode(code, null);
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof OutsideCode(var otherCode, _) && otherCode.equals(code);
    }

    @Override
    public int hashCode() {
        return code.hashCode();
    }

    /** The code, as it is compared and filtered by. */
    @Override
    public String toString() {
        return code;
    }
}
