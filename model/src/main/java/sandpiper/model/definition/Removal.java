package sandpiper.model.definition;

/** What happens when a record is no longer wanted. */
public enum Removal {
    /** It is kept for those that refer to it, and left out of pick lists and usual queries. */
    RETIRE,
    /** It is deleted, unless something refers to it. */
    DELETE,
    /** It stays. */
    NONE
}
