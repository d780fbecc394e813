package sandpiper.engine.input;

/** What a request says of one field. */
public sealed interface InputValue {
    /** It shall have this value, in stored form. */
    record Value(Object stored) implements InputValue {}

    /** It shall be empty. */
    record Empty() implements InputValue {}

    /** It shall point to the record with this key or public id. */
    record Target(String key) implements InputValue {}
}
