package sandpiper.model.definition;

/** The value a new record gets where none was given. */
public sealed interface DefaultValue {
    /** As it is written in the definition. */
    String written();

    /** Always the same value, in stored form. */
    record Fixed(Object value, String written) implements DefaultValue {}

    /** The day of creation, in the package's zone. */
    record Today() implements DefaultValue {
        @Override
        public String written() {
            return "today()";
        }
    }

    /** The moment of creation. */
    record Now() implements DefaultValue {
        @Override
        public String written() {
            return "now()";
        }
    }
}
