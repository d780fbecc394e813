package sandpiper.engine.call;

/**
 * What is called.
 *
 * @param resource empty when the call named none
 * @param operation {@code read}, the name of a call; empty when it is not known
 * @param caller the client or user
 */
public record Called(
        String service,
        int version,
        String resource,
        String operation,
        String protocol,
        String caller) {}
