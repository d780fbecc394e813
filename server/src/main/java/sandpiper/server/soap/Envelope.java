package sandpiper.server.soap;

import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.w3c.dom.Element;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.SoapVersion;

/**
 * A SOAP message that came in.
 *
 * @param header {@code null} when there is none
 * @param call the element in the body, whose name is that of the operation
 */
record Envelope(SoapVersion version, @Nullable Element header, Element call) {
    /**
     * The envelope of a document.
     *
     * @throws ProblemException when it is none
     */
    static Envelope of(Element root) {
        var version =
                Arrays.stream(SoapVersion.values())
                        .filter(one -> one.namespace().equals(root.getNamespaceURI()))
                        .findFirst()
                        .orElse(null);
        if (version == null && "Envelope".equals(root.getLocalName())) {
            throw SoapFaultException.versionMismatch(
                    "The envelope is of another SOAP than 1.1 and 1.2: %s."
                            .formatted(String.valueOf(root.getNamespaceURI())));
        }
        if (version == null || !"Envelope".equals(root.getLocalName())) {
            throw bad(
                    "The body is no SOAP envelope; it begins with %s."
                            .formatted(root.getNodeName()));
        }
        var content = XmlValues.child(root, "Body");
        var calls = content == null ? List.<Element>of() : XmlValues.children(content);
        if (calls.size() != 1) {
            throw bad(
                    "The SOAP body must hold one element, the operation, but holds %d."
                            .formatted(calls.size()));
        }
        return new Envelope(version, XmlValues.child(root, "Header"), calls.getFirst());
    }

    private static ProblemException bad(String message) {
        return new ProblemException(HttpStatus.BAD_REQUEST, message);
    }
}
