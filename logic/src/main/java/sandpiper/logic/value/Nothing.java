package sandpiper.logic.value;

/** FEEL's null: a value of its own, which says that something is empty or cannot be worked out. */
public enum Nothing {
    NULL;

    @Override
    public String toString() {
        return "null";
    }
}
