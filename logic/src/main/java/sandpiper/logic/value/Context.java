package sandpiper.logic.value;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Values by name, in the order they were written, DMN 1.5 §10.3.2.6. Immutable. */
public final class Context {
    public static final Context EMPTY = new Context(Map.of());

    private final Map<String, Object> entries;

    /** Copies the entries and keeps their order. */
    public Context(Map<String, Object> entries) {
        this.entries = new LinkedHashMap<>(entries);
    }

    /** The value of a key, or {@code null} when there is no such key. */
    public @Nullable Object find(String key) {
        return entries.get(key);
    }

    /** The value of a key; {@link Nothing#NULL} when there is no such key. */
    public Object get(String key) {
        return entries.getOrDefault(key, Nothing.NULL);
    }

    public Set<String> keys() {
        return java.util.Collections.unmodifiableSet(entries.keySet());
    }

    /** A copy to add to. */
    public Map<String, Object> copy() {
        return new LinkedHashMap<>(entries);
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Context that && entries.equals(that.entries);
    }

    @Override
    public int hashCode() {
        return entries.hashCode();
    }

    @Override
    public String toString() {
        return ValueText.of(this);
    }
}
