package sandpiper.bench.control;

/** A stay that is not right; the message says why. */
final class RefusedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    RefusedException(String message) {
        super(message);
    }
}
