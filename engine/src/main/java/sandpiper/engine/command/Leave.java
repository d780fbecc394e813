package sandpiper.engine.command;

/**
 * What whoever asks takes upon themselves besides. Who may say so is decided where the request
 * comes in.
 *
 * @param whole gives new records what else only the service gives them: a state other than the
 *     first, numbers, fields that are read-only. For data that was exported elsewhere
 * @param used retires a record although others still refer to it
 */
public record Leave(boolean whole, boolean used) {
    /** Nothing. */
    public static final Leave NONE = new Leave(false, false);
}
