package sandpiper.engine.call;

/**
 * What is called.
 *
 * @param revision of the contract that the caller named; 0 when none
 * @param resource empty when the call named none
 * @param operation {@code read}, the name of a call; empty when it is not known
 * @param caller the client or user
 */
public record Called(
        String service,
        int version,
        int revision,
        String resource,
        String operation,
        String protocol,
        String caller) {
    /** The protocol of calls that go out, of services outside. */
    public static final String OUTGOING = "outgoing";
}
