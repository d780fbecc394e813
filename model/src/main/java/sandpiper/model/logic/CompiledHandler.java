package sandpiper.model.logic;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.run.Code;
import sandpiper.logic.run.StepCode;
import sandpiper.model.definition.HandlerDefinition;
import sandpiper.model.release.EventType;
import sandpiper.model.release.ObjectType;

/**
 * A handler that can be run. The first name of its frame is the event, or the list of them.
 *
 * @param object in whose definition it stands
 * @param events that it hears
 * @param aboutRecord whether the record an event is about is {@code this}
 * @param when {@code null} for always
 */
public record CompiledHandler(
        HandlerDefinition definition,
        ObjectType object,
        List<EventType> events,
        boolean aboutRecord,
        @Nullable Code when,
        StepCode then) {
    public CompiledHandler {
        events = List.copyOf(events);
    }

    /** Its name among all handlers: {@code Stay.tellPortOffice}. */
    public String name() {
        return object.name() + "." + definition.name();
    }

    /** Whether it hears an event. */
    public boolean hears(String event) {
        return events.stream().anyMatch(one -> one.name().equals(event));
    }
}
