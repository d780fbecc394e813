package sandpiper.server.soap.xml;

import javax.xml.stream.XMLStreamReader;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;

/**
 * Counts what a message is made of while a tree is made of it: a tree takes a hundred times the
 * room of the text.
 */
public final class XmlBounds {
    static final int MOST_ELEMENTS = 50_000;
    static final int MOST_ATTRIBUTES = 50;

    /** How many elements may stand in each other. */
    public static final int DEEPEST = 60;

    private static final int LONGEST_NAME = 200;

    private int depth;
    private int elements;

    /**
     * Counts an element that begins.
     *
     * @throws ProblemException when it is one too many, or made of too much
     */
    void begin(XMLStreamReader reader) {
        require(++elements <= MOST_ELEMENTS, "have at most %,d elements", MOST_ELEMENTS);
        require(++depth <= DEEPEST, "be at most %,d elements deep", DEEPEST);
        require(
                reader.getAttributeCount() + reader.getNamespaceCount() <= MOST_ATTRIBUTES,
                "have at most %,d attributes at an element",
                MOST_ATTRIBUTES);
        require(
                reader.getLocalName().length() <= LONGEST_NAME,
                "have names of at most %,d characters",
                LONGEST_NAME);
    }

    /** Counts an element that ends. */
    void end() {
        depth--;
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
