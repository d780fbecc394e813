package sandpiper.server.soap.xml;

import com.ctc.wstx.api.WstxInputProperties;
import com.ctc.wstx.stax.WstxInputFactory;
import java.io.ByteArrayInputStream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.codehaus.stax2.XMLInputFactory2;

/** Reads messages piece by piece, without a DOCTYPE and without anything from elsewhere. */
public final class XmlReaders {
    private static final XMLInputFactory FACTORY = factory();

    private XmlReaders() {}

    /** A reader of a message, or of the beginning of one. */
    public static XMLStreamReader of(byte[] message) throws XMLStreamException {
        return FACTORY.createXMLStreamReader(new ByteArrayInputStream(message));
    }

    private static XMLInputFactory factory() {
        var factory = new WstxInputFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        // What is wrong is told while the text is read, not when it is first used.
        factory.setProperty(XMLInputFactory2.P_LAZY_PARSING, false);
        // Bounds are told in our own words, just before these would be.
        factory.setProperty(WstxInputProperties.P_MAX_ELEMENT_DEPTH, XmlBounds.DEEPEST + 1);
        factory.setProperty(
                WstxInputProperties.P_MAX_ATTRIBUTES_PER_ELEMENT, 2 * XmlBounds.MOST_ATTRIBUTES);
        return factory;
    }
}
