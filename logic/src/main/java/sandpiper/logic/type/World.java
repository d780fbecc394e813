package sandpiper.logic.type;

import java.util.Collection;
import java.util.List;
import java.util.Optional;

/** What an expression may name besides the record it is about. */
public interface World {
    /** Knows nothing: for expressions that stand alone. */
    World EMPTY =
            new World() {
                @Override
                public Optional<RecordType> object(String name) {
                    return Optional.empty();
                }

                @Override
                public Collection<String> objectNames() {
                    return List.of();
                }
            };

    /** An object, whose name stands for all its records. */
    Optional<RecordType> object(String name);

    Collection<String> objectNames();

    /** An event that logic may raise, or nothing when there is none of that name. */
    default Optional<EventShape> event(String name) {
        return Optional.empty();
    }

    /** An outside service, or nothing when there is none of that name. */
    default Optional<OutsideService> connection(String name) {
        return Optional.empty();
    }

    /** Every name {@link #connection} knows. */
    default List<String> connectionNames() {
        return List.of();
    }

    /** Whether it is said where exchange rates come from. */
    default boolean hasRates() {
        return false;
    }

    /** Every name {@link #event} knows. */
    default List<String> eventNames() {
        return List.of();
    }
}
