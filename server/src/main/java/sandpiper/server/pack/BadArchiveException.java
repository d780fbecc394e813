package sandpiper.server.pack;

/** A file is no package, or not the package it says it is; the message says why. */
public final class BadArchiveException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    BadArchiveException(String message) {
        super(message);
    }

    BadArchiveException(String message, Throwable cause) {
        super(message, cause);
    }
}
