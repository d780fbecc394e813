package sandpiper.server.soap.xml;

import java.util.Locale;
import java.util.Objects;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.stream.Location;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.w3c.dom.DOMImplementation;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import sandpiper.server.problem.ProblemException;

/** Reads messages as trees of elements, counting on the way what they are made of. */
public final class XmlTrees {
    private static final DOMImplementation TREES = trees();

    private final XMLStreamReader reader;
    private final Document document = TREES.createDocument(null, null, null);
    private final XmlBounds bounds = new XmlBounds();

    private XmlTrees(XMLStreamReader reader) {
        this.reader = reader;
    }

    /**
     * The root of a document. Document types, and with them entities, are refused; so is what lies
     * deeper than any schema here, or is made of too much.
     *
     * @throws ProblemException when it is none
     */
    public static Element root(byte[] body) {
        if (body.length == 0) {
            throw bad("The body is empty; it must be a SOAP envelope.");
        }
        try {
            return new XmlTrees(XmlReaders.of(body)).read();
        } catch (XMLStreamException e) {
            var at = e.getLocation();
            throw bad("The body is not XML that is taken here%s: %s".formatted(at(at), said(e)));
        }
    }

    private Element read() throws XMLStreamException {
        Node at = document;
        while (reader.hasNext()) {
            switch (reader.next()) {
                case XMLStreamReader.START_ELEMENT -> at = at.appendChild(begun());
                case XMLStreamReader.END_ELEMENT -> {
                    bounds.end();
                    at = Objects.requireNonNull(at.getParentNode());
                }
                case XMLStreamReader.CHARACTERS, XMLStreamReader.CDATA, XMLStreamReader.SPACE ->
                        text(at);
                case XMLStreamReader.DTD ->
                        throw bad(
                                "The body is not XML that is taken here%s: it may have no DOCTYPE."
                                        .formatted(at(reader.getLocation())));
                case XMLStreamReader.ENTITY_REFERENCE ->
                        throw bad(
                                "The body is not XML that is taken here%s: there is no entity %s."
                                        .formatted(
                                                at(reader.getLocation()), reader.getLocalName()));
                default -> {
                    // Comments and instructions say nothing.
                }
            }
        }
        return document.getDocumentElement();
    }

    private void text(Node at) {
        if (at != document) {
            at.appendChild(document.createTextNode(reader.getText()));
        }
    }

    private Element begun() {
        bounds.begin(reader);
        var element =
                document.createElementNS(
                        reader.getNamespaceURI(), name(reader.getPrefix(), reader.getLocalName()));
        for (int i = 0; i < reader.getNamespaceCount(); i++) {
            var prefix = reader.getNamespacePrefix(i);
            element.setAttributeNS(
                    XMLConstants.XMLNS_ATTRIBUTE_NS_URI,
                    prefix == null || prefix.isEmpty()
                            ? XMLConstants.XMLNS_ATTRIBUTE
                            : name(XMLConstants.XMLNS_ATTRIBUTE, prefix),
                    Objects.requireNonNullElse(reader.getNamespaceURI(i), ""));
        }
        for (int i = 0; i < reader.getAttributeCount(); i++) {
            element.setAttributeNS(
                    reader.getAttributeNamespace(i),
                    name(reader.getAttributePrefix(i), reader.getAttributeLocalName(i)),
                    reader.getAttributeValue(i));
        }
        return element;
    }

    private static String name(@Nullable String prefix, String local) {
        return prefix == null || prefix.isEmpty() ? local : prefix + ":" + local;
    }

    private static String at(@Nullable Location at) {
        return at == null
                ? ""
                : String.format(
                        Locale.ROOT,
                        ", at line %d, column %d",
                        at.getLineNumber(),
                        at.getColumnNumber());
    }

    /** Without the place, which is told in front. */
    private static String said(XMLStreamException e) {
        return String.valueOf(e.getMessage()).replaceFirst("(?s)\\s+at \\[row,col.*$", "");
    }

    private static ProblemException bad(String message) {
        return new ProblemException(HttpStatus.BAD_REQUEST, message);
    }

    private static DOMImplementation trees() {
        try {
            return DocumentBuilderFactory.newDefaultNSInstance()
                    .newDocumentBuilder()
                    .getDOMImplementation();
        } catch (ParserConfigurationException e) {
            throw new IllegalStateException(e);
        }
    }
}
