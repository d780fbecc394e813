package sandpiper.engine.write;

/** More is waiting to be written than can be taken; trying again in a moment is right. */
public final class OverloadedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    OverloadedException(int waiting) {
        super("%,d changes are waiting to be written; try again in a second.".formatted(waiting));
    }
}
