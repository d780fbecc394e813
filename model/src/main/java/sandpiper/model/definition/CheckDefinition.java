package sandpiper.model.definition;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A condition that must be true for a save or a transition to go through.
 *
 * @param name identifies it among those of its object
 * @param say the message, with expressions in braces
 * @param at the field the message is about, or {@code null} for the record as a whole
 * @param warning whether it only warns
 * @param on when it is looked at
 * @param before transitions before which it is looked at, and then only; empty for any save
 * @param beforeText how these are written; {@code null} when as a list, or not at all
 */
public record CheckDefinition(
        String name,
        LogicText that,
        LogicText say,
        @Nullable LogicText at,
        boolean warning,
        Trigger on,
        List<String> before,
        @Nullable LogicText beforeText) {
    public CheckDefinition {
        before = List.copyOf(before);
    }
}
