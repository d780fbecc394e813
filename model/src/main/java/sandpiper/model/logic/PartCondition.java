package sandpiper.model.logic;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.run.Code;
import sandpiper.model.release.Part;

/**
 * When the line items of a part stay as they are.
 *
 * @param written as in the definition
 * @param say what people are told instead of the condition, or {@code null}
 */
public record PartCondition(Part part, String written, Code code, @Nullable Code say) {}
