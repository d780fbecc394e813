package sandpiper.logic.run;

/** Something a person wrote took more than it may. Its message says what, in a whole sentence. */
public final class BudgetException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final String said;

    public BudgetException(String message) {
        // The stack says nothing to anybody and is dear to write down.
        super(message, null, false, false);
        this.said = message;
    }

    /** What was too much. */
    public String said() {
        return said;
    }
}
