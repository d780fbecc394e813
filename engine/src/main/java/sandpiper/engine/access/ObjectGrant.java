package sandpiper.engine.access;

import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What may be done with the records of an object.
 *
 * @param object its name, or {@code *} for every object
 * @param where a condition in FEEL that the records meet, or {@code null} for all of them
 * @param hidden fields that are not seen
 * @param readOnly fields that are seen but not changed
 */
public record ObjectGrant(
        String object,
        Set<Action> actions,
        @Nullable String where,
        List<String> hidden,
        List<String> readOnly) {
    /** The name that stands for every object. */
    public static final String EVERY = "*";

    public ObjectGrant {
        actions = Set.copyOf(actions);
        hidden = List.copyOf(hidden);
        readOnly = List.copyOf(readOnly);
    }

    /** What can be done with a record. */
    public enum Action {
        /** See it, with its history. */
        VIEW,
        CREATE,
        /** Change it and take its transitions. */
        EDIT,
        /** Retire, restore or delete it. */
        RETIRE
    }

    boolean showsEverything() {
        return object.equals(EVERY)
                && actions.contains(Action.VIEW)
                && where == null
                && hidden.isEmpty();
    }

    boolean covers(String name) {
        return object.equals(EVERY) || object.equals(name);
    }
}
