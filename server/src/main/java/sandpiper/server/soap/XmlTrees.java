package sandpiper.server.soap;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.w3c.dom.Element;
import org.xml.sax.ErrorHandler;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;
import sandpiper.server.problem.ProblemException;

/** Reads messages as trees of elements. Safe for many threads. */
@Component
final class XmlTrees {
    private static final String DEEPEST = "60";

    private final Pool<DocumentBuilder> builders = new Pool<>(XmlTrees::builder);

    /**
     * The root of a document. Document types, and with them entities, are refused; so is what lies
     * deeper than any schema here.
     *
     * @throws ProblemException when it is none
     */
    Element root(byte[] body) {
        if (body.length == 0) {
            throw bad("The body is empty; it must be a SOAP envelope.");
        }
        XmlBounds.check(body);
        try {
            return builders.with(
                    builder -> builder.parse(new ByteArrayInputStream(body)).getDocumentElement());
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
