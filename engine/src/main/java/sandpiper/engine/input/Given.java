package sandpiper.engine.input;

/** What a request says of one field. */
public sealed interface Given {
    /** It shall have this value, in stored form. */
    record Value(Object stored) implements Given {}

    /** It shall be empty. */
    record Empty() implements Given {}

    /** It shall point to the record with this key or public id. */
    record Target(String key) implements Given {}
}
