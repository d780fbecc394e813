package sandpiper.model.definition;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * The states of a record and the transitions between them.
 *
 * @param field the choice field that holds the state
 * @param initial the state of a new record
 */
public record Lifecycle(
        String field, String initial, List<String> states, List<Transition> transitions) {
    public Lifecycle {
        states = List.copyOf(states);
        transitions = List.copyOf(transitions);
    }

    /**
     * A step from one state to another.
     *
     * @param from states in which it can be taken
     */
    public record Transition(
            String name, String label, @Nullable String describe, List<String> from, String to) {
        public Transition {
            from = List.copyOf(from);
        }
    }

    /** The transition of a name, or nothing. */
    public Optional<Transition> find(String name) {
        return transitions.stream().filter(one -> one.name().equals(name)).findFirst();
    }
}
