package sandpiper.server.soap;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.w3c.dom.Element;
import org.xml.sax.ErrorHandler;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.SoapVersion;

/**
 * A SOAP message that came in.
 *
 * @param header {@code null} when there is none
 * @param call the element in the body, whose name is that of the operation
 */
record Envelope(SoapVersion version, @Nullable Element header, Element call) {
    private static final String DEEPEST = "60";

    /**
     * Reads a message. Document types, and with them entities, are refused; so is what lies deeper
     * than any schema here.
     *
     * @throws ProblemException when it is none
     */
    static Envelope read(byte[] body) {
        var root = parse(body);
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

    private static Element parse(byte[] body) {
        if (body.length == 0) {
            throw bad("The body is empty; it must be a SOAP envelope.");
        }
        XmlBounds.check(body);
        try {
            return builder().parse(new ByteArrayInputStream(body)).getDocumentElement();
        } catch (SAXParseException e) {
            throw bad(
                    "The body is not XML that is taken here, at line %d, column %d: %s"
                            .formatted(e.getLineNumber(), e.getColumnNumber(), said(e)));
        } catch (SAXException | IOException e) {
            throw bad("The body is not XML that is taken here: %s".formatted(said(e)));
        }
    }

    private static String said(Exception e) {
        var message = String.valueOf(e.getMessage());
        return message.contains("DOCTYPE") ? "it may have no DOCTYPE." : message;
    }

    private static ProblemException bad(String message) {
        return new ProblemException(HttpStatus.BAD_REQUEST, message);
    }

    private static DocumentBuilder builder() {
        try {
            var factory = DocumentBuilderFactory.newDefaultNSInstance();
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            factory.setAttribute(XMLConstants.ACCESS_EXTERNAL_DTD, "");
            factory.setAttribute(XMLConstants.ACCESS_EXTERNAL_SCHEMA, "");
            factory.setAttribute("jdk.xml.maxElementDepth", DEEPEST);
            factory.setXIncludeAware(false);
            factory.setExpandEntityReferences(false);
            factory.setIgnoringComments(true);
            factory.setCoalescing(true);
            var builder = factory.newDocumentBuilder();
            builder.setErrorHandler(new Strict());
            return builder;
        } catch (ParserConfigurationException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Every fault ends the reading; none is printed. */
    private static final class Strict implements ErrorHandler {
        @Override
        public void warning(SAXParseException exception) {
            // Nothing is wrong with what is only unusual.
        }

        @Override
        public void error(SAXParseException exception) throws SAXException {
            throw exception;
        }

        @Override
        public void fatalError(SAXParseException exception) throws SAXException {
            throw exception;
        }
    }
}
