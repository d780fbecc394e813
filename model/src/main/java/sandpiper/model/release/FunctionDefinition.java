package sandpiper.model.release;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.syntax.StepParser;
import sandpiper.model.definition.LogicText;

/**
 * Steps with a name, which others call with arguments.
 *
 * @param describe what it does, or {@code null}
 * @param onRecord whether it is called on a record; otherwise on the object as a whole
 * @param external whether services, the console and the command line call it; otherwise only rules
 *     and other functions do
 * @param ownRights whether it changes other records with rights of its own; otherwise with those of
 *     its caller
 * @param parameters what a caller gives
 * @param returns what it gives back, or {@code null} for nothing
 */
public record FunctionDefinition(
        String name,
        String label,
        @Nullable String describe,
        boolean onRecord,
        boolean external,
        boolean ownRights,
        ValueType.Group parameters,
        @Nullable ValueType returns,
        LogicText body) {

    /** Whether it only finds something out and changes nothing. */
    public boolean asksOnly() {
        return StepParser.asksOnly(body.text());
    }
}
