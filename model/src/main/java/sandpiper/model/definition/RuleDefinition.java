package sandpiper.model.definition;

import org.jspecify.annotations.Nullable;

/**
 * On a change, when a condition holds, some steps.
 *
 * @param describe what it is for, or {@code null}
 * @param when {@code null} for always
 */
public record RuleDefinition(
        String name,
        String label,
        @Nullable String describe,
        Trigger on,
        @Nullable LogicText when,
        LogicText then) {}
