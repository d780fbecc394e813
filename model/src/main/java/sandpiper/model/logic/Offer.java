package sandpiper.model.logic;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.condition.Selections;
import sandpiper.logic.run.Code;
import sandpiper.model.release.Field;
import sandpiper.model.release.Part;

/**
 * Which records a reference may point to.
 *
 * @param parts what is asked, one by one, so that a refusal can say which was not met
 * @param selections the records it allows as a store can find them, or {@code null} when it cannot
 * @param values what must be known to look them up, in order
 * @param say what people are told of a record that is not offered, or {@code null}
 */
public record Offer(
        @Nullable Part part,
        Field field,
        List<Demand> parts,
        @Nullable Selections selections,
        List<Code> values,
        @Nullable Code say) {
    public Offer {
        parts = List.copyOf(parts);
        values = List.copyOf(values);
    }

    /** One thing asked of the record that is chosen; {@code written} as in the definition. */
    public record Demand(String written, Code code) {}
}
