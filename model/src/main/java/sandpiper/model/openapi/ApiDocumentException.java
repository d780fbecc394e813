package sandpiper.model.openapi;

/** A document that cannot be used; the message is for whoever brought it. */
public final class ApiDocumentException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    ApiDocumentException(String message) {
        super(message);
    }
}
