package sandpiper.server.soap;

import java.io.ByteArrayInputStream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;

/**
 * Counts what a message is made of before a tree is made of it: a tree takes a hundred times the
 * room of the text.
 */
final class XmlBounds {
    static final int MOST_ELEMENTS = 50_000;
    static final int MOST_ATTRIBUTES = 50;
    static final int DEEPEST = 60;
    private static final int LONGEST_NAME = 200;

    private static final XMLInputFactory FACTORY = factory();

    private XmlBounds() {}

    /** Reads a message piece by piece, without a DOCTYPE and without anything from elsewhere. */
    static XMLStreamReader reader(byte[] message) throws XMLStreamException {
        return FACTORY.createXMLStreamReader(new ByteArrayInputStream(message));
    }

    private static XMLInputFactory factory() {
        var factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, false);
        return factory;
    }

    /**
     * Reads a message through and keeps nothing of it. What is no XML is left for the reader of the
     * tree to say.
     *
     * @throws ProblemException when it is made of too much
     */
    static void check(byte[] message) {
        try {
            var reader = reader(message);
            int depth = 0;
            int elements = 0;
            while (reader.hasNext()) {
                switch (reader.next()) {
                    case XMLStreamReader.START_ELEMENT -> {
                        require(
                                ++elements <= MOST_ELEMENTS,
                                "have at most %,d elements",
                                MOST_ELEMENTS);
                        require(++depth <= DEEPEST, "be at most %,d elements deep", DEEPEST);
                        require(
                                reader.getAttributeCount() + reader.getNamespaceCount()
                                        <= MOST_ATTRIBUTES,
                                "have at most %,d attributes at an element",
                                MOST_ATTRIBUTES);
                        require(
                                reader.getLocalName().length() <= LONGEST_NAME,
                                "have names of at most %,d characters",
                                LONGEST_NAME);
                    }
                    case XMLStreamReader.END_ELEMENT -> depth--;
                    default -> {
                        // text takes no more room than it has
                    }
                }
            }
        } catch (XMLStreamException _) {
            // said with its place when the tree is made, which stops there as well
        }
    }

    private static void require(boolean holds, String what, int most) {
        if (!holds) {
            throw new ProblemException(
                    HttpStatus.CONTENT_TOO_LARGE,
                    "A message may %s; send larger amounts in several messages."
                            .formatted(what.formatted(most)));
        }
    }
}
