package sandpiper.model.definition;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Steps that run when an event arrives.
 *
 * @param describe what it is for, or {@code null}
 * @param on names of the events
 * @param when the condition under which it does something, or {@code null} for always
 * @param within whether it runs as part of the change that raised the event; otherwise after it is
 *     committed
 * @param batch whether one run takes all events of one change
 */
public record HandlerDefinition(
        String name,
        String label,
        @Nullable String describe,
        List<String> on,
        @Nullable LogicText when,
        boolean within,
        boolean batch,
        LogicText then) {
    public HandlerDefinition {
        on = List.copyOf(on);
    }
}
