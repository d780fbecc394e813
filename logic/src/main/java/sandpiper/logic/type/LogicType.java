package sandpiper.logic.type;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * The type of a value in the language: FEEL's own (DMN 1.5 §10.3.2.3), and the units and records of
 * the model.
 */
public sealed interface LogicType {
    /** The type as people call it, with its article: "a number", "a date". */
    String described();

    /** Types without further parts. */
    enum Simple implements LogicType {
        ANY("any value"),
        NOTHING("null"),
        TEXT("text"),
        NUMBER("a number"),
        /** A share that is written 19 and counts as 0.19. */
        PERCENT("a percent"),
        BOOLEAN("true or false"),
        DATE("a date"),
        TIME("a time"),
        DATE_TIME("a date and time"),
        DURATION("a duration"),
        MONTHS("a duration of years and months");

        private final String described;

        Simple(String described) {
            this.described = described;
        }

        @Override
        public String described() {
            return described;
        }
    }

    /**
     * Money.
     *
     * @param currency ISO 4217 code, or {@code null} when each value has its own
     */
    record AmountOf(@Nullable String currency) implements LogicType {
        @Override
        public String described() {
            return currency == null ? "an amount" : "an amount in " + currency;
        }
    }

    /** One code of a closed list; compared with text. */
    record ChoiceOf(List<String> codes) implements LogicType {
        public ChoiceOf {
            codes = List.copyOf(codes);
        }

        @Override
        public String described() {
            return "one of " + String.join(", ", codes);
        }
    }

    /** A record. Compared with text it stands for its key. */
    record RecordOf(RecordType record) implements LogicType {
        @Override
        public String described() {
            return "a record of " + record.name();
        }
    }

    record ListOf(LogicType item) implements LogicType {
        @Override
        public String described() {
            return item == Simple.ANY
                    ? "a list"
                    : item instanceof RecordOf(var record)
                            ? "a list of " + record.name() + " records"
                            : "a list, each " + item.described();
        }
    }

    record RangeOf(LogicType of) implements LogicType {
        @Override
        public String described() {
            return "a range";
        }
    }

    /** Values by name; {@code null} entries when the names are not known. */
    record ContextOf(@Nullable Map<String, LogicType> entries) implements LogicType {
        public ContextOf {
            entries = entries == null ? null : new LinkedHashMap<>(entries);
        }

        @Override
        public String described() {
            return entries == null
                    ? "a context"
                    : entries.keySet().stream()
                            .collect(Collectors.joining(", ", "a context with ", ""));
        }
    }

    /**
     * A function.
     *
     * @param parameters {@code null} when any are taken
     * @param names of the parameters, or {@code null} when they are not known
     */
    record FunctionOf(
            @Nullable List<LogicType> parameters, @Nullable List<String> names, LogicType result)
            implements LogicType {
        public FunctionOf(@Nullable List<LogicType> parameters, LogicType result) {
            this(parameters, null, result);
        }

        @Override
        public String described() {
            return "a function";
        }
    }

    /** What text can be compared with. */
    default boolean isTextual() {
        return this == Simple.TEXT || this instanceof ChoiceOf;
    }

    /** Whether values are reckoned with as numbers. */
    default boolean isNumeric() {
        return this == Simple.NUMBER || this == Simple.PERCENT || this instanceof AmountOf;
    }

    /** Whether nothing can be said about the values. */
    default boolean isOpen() {
        return this == Simple.ANY || this == Simple.NOTHING;
    }

    /** Whether one value comes before another. */
    default boolean isOrdered() {
        return this != Simple.BOOLEAN
                && (this instanceof Simple || this instanceof AmountOf || this instanceof ChoiceOf);
    }

    /** The item's type of a list; of anything else the type itself, as a list of one. */
    default LogicType itemType() {
        return this instanceof ListOf(var item) ? item : this;
    }

    /** A type that both values have; {@link Simple#ANY} when there is none of use. */
    static LogicType common(LogicType a, LogicType b) {
        if (a.equals(b) || b == Simple.NOTHING) {
            return a;
        }
        if (a == Simple.NOTHING) {
            return b;
        }
        if (a.isTextual() && b.isTextual()) {
            return Simple.TEXT;
        }
        if (a.isNumeric() && b.isNumeric()) {
            return Simple.NUMBER;
        }
        if (a instanceof ListOf(var x) && b instanceof ListOf(var y)) {
            return new ListOf(common(x, y));
        }
        return Simple.ANY;
    }
}
