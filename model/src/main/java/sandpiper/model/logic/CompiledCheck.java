package sandpiper.model.logic;

import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.run.Code;
import sandpiper.model.definition.CheckDefinition;
import sandpiper.model.release.Part;

/**
 * A check that can be run.
 *
 * @param part the part whose line items it is about, or {@code null}
 * @param reads names of the fields and parts of the record it reads
 */
public record CompiledCheck(
        CheckDefinition definition,
        @Nullable Part part,
        CheckedTerm checked,
        Code that,
        Code say,
        Set<String> reads) {
    public CompiledCheck {
        reads = Set.copyOf(reads);
    }
}
