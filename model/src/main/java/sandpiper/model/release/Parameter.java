package sandpiper.model.release;

import org.jspecify.annotations.Nullable;

/**
 * A value with a name: a parameter of a function, or what an event tells.
 *
 * @param describe what it means, or {@code null}
 * @param required whether there must be a value
 */
public record Parameter(
        String name, String label, @Nullable String describe, boolean required, ValueType type) {}
