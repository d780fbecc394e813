package sandpiper.server.replay;

import java.io.ByteArrayInputStream;
import java.util.ArrayDeque;
import java.util.List;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** The values of XML by their places: the names of elements, without prefixes. */
final class XmlPlaces {
    private static final XMLInputFactory FACTORY = factory();

    private XmlPlaces() {}

    private static XMLInputFactory factory() {
        var factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        return factory;
    }

    static void read(byte[] body, Map<String, List<String>> into) {
        try {
            walk(FACTORY.createXMLStreamReader(new ByteArrayInputStream(body)), into);
        } catch (XMLStreamException e) {
            throw new IllegalArgumentException("This is no XML", e);
        }
    }

    private static void walk(XMLStreamReader reader, Map<String, List<String>> into)
            throws XMLStreamException {
        var path = new ArrayDeque<String>();
        var text = new StringBuilder();
        while (reader.hasNext()) {
            switch (reader.next()) {
                case XMLStreamReader.START_ELEMENT -> {
                    path.addLast(reader.getLocalName());
                    text.setLength(0);
                    for (int i = 0; i < reader.getAttributeCount(); i++) {
                        ReplayedAnswer.put(
                                into,
                                String.join(".", path) + "@" + reader.getAttributeLocalName(i),
                                reader.getAttributeValue(i));
                    }
                }
                case XMLStreamReader.CHARACTERS -> text.append(reader.getText());
                case XMLStreamReader.END_ELEMENT -> {
                    ReplayedAnswer.put(into, String.join(".", path), text.toString().strip());
                    text.setLength(0);
                    path.removeLast();
                }
                default -> {
                    // Comments and the like say nothing.
                }
            }
        }
    }
}
