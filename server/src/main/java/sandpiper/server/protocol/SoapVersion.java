package sandpiper.server.protocol;

import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** The two versions of SOAP that are spoken; they differ in namespace, content type and faults. */
public enum SoapVersion {
    SOAP_11("http://schemas.xmlsoap.org/soap/envelope/", "text/xml", "Client", "Server"),
    SOAP_12(
            "http://www.w3.org/2003/05/soap-envelope",
            "application/soap+xml",
            "Sender",
            "Receiver");

    private final String namespace;
    private final String contentType;
    private final String sender;
    private final String receiver;

    SoapVersion(String namespace, String contentType, String sender, String receiver) {
        this.namespace = namespace;
        this.contentType = contentType;
        this.sender = sender;
        this.receiver = receiver;
    }

    /** The version of a message by its content type; the older when that says nothing. */
    public static SoapVersion of(@Nullable String contentType) {
        return contentType != null
                        && contentType
                                .strip()
                                .toLowerCase(Locale.ROOT)
                                .startsWith(SOAP_12.contentType)
                ? SOAP_12
                : SOAP_11;
    }

    /** The namespace of the envelope. */
    public String namespace() {
        return namespace;
    }

    /** The type of its messages, without a charset. */
    public String contentType() {
        return contentType;
    }

    /** The fault code of a mistake in the request. */
    public String sender() {
        return sender;
    }

    /** The fault code of something that went wrong here. */
    public String receiver() {
        return receiver;
    }
}
