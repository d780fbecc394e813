package sandpiper.model.definition;

import java.time.LocalDate;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.model.Place;

/**
 * A line of what the customer asked for.
 *
 * @param id its number on the customer's list
 * @param text in the customer's words
 * @param examples what proves it; without any it is not yet proved
 */
public record Requirement(String id, String packageName, String text, List<Example> examples) {
    public Requirement {
        examples = List.copyOf(examples);
    }

    /**
     * Records there are, what is done, and what comes of it.
     *
     * @param today the day on which it takes place
     * @param answers what outside services are said to answer, by their calls
     * @param when what is done; the last of it is what is looked at
     */
    public record Example(
            String name,
            String label,
            LocalDate today,
            Map<String, @Nullable Object> answers,
            List<Action> given,
            List<Action> when,
            Expected then,
            String file,
            Place place) {
        public Example {
            answers = Collections.unmodifiableMap(new LinkedHashMap<>(answers));
            given = List.copyOf(given);
            when = List.copyOf(when);
        }
    }

    /**
     * Something that is done. Records are named by {@code Object/key} or by a name given before.
     */
    public sealed interface Action {
        /** A name for the record it is about, or {@code null}. */
        @Nullable String as();

        /** Who does it, or {@code null} for somebody who may do everything. */
        @Nullable String by();

        record Create(
                String object,
                Map<String, @Nullable Object> values,
                @Nullable String as,
                @Nullable String by)
                implements Action {}

        record Change(
                String record,
                Map<String, @Nullable Object> values,
                @Nullable String as,
                @Nullable String by)
                implements Action {}

        record Retire(String record, @Nullable String as, @Nullable String by) implements Action {}

        record Transit(String transition, String record, @Nullable String as, @Nullable String by)
                implements Action {}

        /**
         * Calls a function.
         *
         * @param function {@code Stay.quote}, or its name alone when it is called on a record
         * @param record on which, or {@code null} for a function of the object as a whole
         */
        record Call(
                String function,
                @Nullable String record,
                Map<String, @Nullable Object> arguments,
                @Nullable String as,
                @Nullable String by)
                implements Action {}
    }

    /**
     * What comes of it.
     *
     * @param refused words of the message with which it is refused, or {@code null} when it is done
     * @param at the field that message is about, or {@code null} when that is not looked at
     * @param warns words of a warning, or {@code null}
     * @param hasResult whether what a function gives back is looked at
     * @param values fields of the record
     * @param records fields of other records
     * @param events all events that are raised, or {@code null} when they are not looked at
     */
    public record Expected(
            @Nullable String refused,
            @Nullable String at,
            @Nullable String warns,
            boolean hasResult,
            @Nullable Object result,
            Map<String, @Nullable Object> values,
            Map<String, Map<String, @Nullable Object>> records,
            @Nullable List<ExpectedEvent> events) {}

    /** An event that is raised, with some of what it tells. */
    public record ExpectedEvent(String name, Map<String, @Nullable Object> values) {}
}
