package sandpiper.engine.writer;

import java.time.Duration;

/** Nobody can tell yet whether something is done: it was begun, and takes long. */
public final class UnfinishedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /** Says so. */
    public UnfinishedException(Duration waited, Throwable cause) {
        super(
                "This has taken %d seconds and may still be done: look before you send it again, or send it with the same Idempotency-Key."
                        .formatted(waited.toSeconds()),
                cause);
    }
}
