package sandpiper.logic.type;

import java.util.List;

/** The type of a value in the language. The simple ones are FEEL's own (DMN 1.5 §10.3.2.3). */
public sealed interface LogicType {
    /** The type as people call it, with its article: "a number", "a date". */
    String described();

    /** FEEL's scalar types. */
    enum Simple implements LogicType {
        TEXT("text"),
        NUMBER("a number"),
        BOOLEAN("true or false"),
        DATE("a date"),
        TIME("a time"),
        DATE_TIME("a date and time"),
        DURATION("a duration");

        private final String described;

        Simple(String described) {
            this.described = described;
        }

        @Override
        public String described() {
            return described;
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

    /** A related record. Compared with text it stands for its key. */
    record RecordOf(RecordType record) implements LogicType {
        @Override
        public String described() {
            return "a record of " + record.name();
        }
    }

    /** What text can be compared with. */
    default boolean isTextual() {
        return this == Simple.TEXT || this instanceof ChoiceOf;
    }
}
