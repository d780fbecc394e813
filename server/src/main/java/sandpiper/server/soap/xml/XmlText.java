package sandpiper.server.soap.xml;

import com.ctc.wstx.api.WstxOutputProperties;
import com.ctc.wstx.stax.WstxOutputFactory;
import java.io.StringWriter;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import org.codehaus.stax2.XMLOutputFactory2;
import org.codehaus.stax2.XMLStreamProperties;
import org.jspecify.annotations.Nullable;

/** Writes XML as text; everything is escaped. Names are written as they are given. */
public final class XmlText {
    private static final XMLOutputFactory FACTORY = factory();

    private final StringWriter text = new StringWriter();
    private final XMLStreamWriter writer;

    /** Begins with nothing. */
    public XmlText() {
        try {
            writer = FACTORY.createXMLStreamWriter(text);
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }

    private static XMLOutputFactory factory() {
        var factory = new WstxOutputFactory();
        factory.setProperty(XMLStreamProperties.XSP_NAMESPACE_AWARE, false);
        factory.setProperty(XMLOutputFactory2.P_AUTOMATIC_EMPTY_ELEMENTS, false);
        factory.setProperty(WstxOutputProperties.P_USE_DOUBLE_QUOTES_IN_XML_DECL, true);
        // What XML has no place for is replaced before it comes to the writer.
        factory.setProperty(WstxOutputProperties.P_OUTPUT_VALIDATE_CONTENT, false);
        return factory;
    }

    /** Begins a document of its own. */
    public XmlText document() {
        return run(() -> writer.writeStartDocument("UTF-8", "1.0"));
    }

    /**
     * Begins an element; attributes are names and values in turn, those without a value left out.
     */
    public XmlText open(String name, @Nullable String... attributes) {
        return run(() -> {
            writer.writeStartElement(name);
            attributes(attributes);
        });
    }

    /** Ends the element that was begun last. */
    public XmlText close() {
        return run(writer::writeEndElement);
    }

    /** An element without content. */
    public XmlText leaf(String name, @Nullable String... attributes) {
        return run(() -> {
            writer.writeEmptyElement(name);
            attributes(attributes);
        });
    }

    /** An element with text. */
    public XmlText text(String name, String content, @Nullable String... attributes) {
        open(name, attributes);
        return run(() -> {
            var clean = clean(content);
            int from = 0;
            // A reader takes a bare return for the end of a line, however it was meant.
            for (int at = clean.indexOf('\r'); at >= 0; at = clean.indexOf('\r', from)) {
                writer.writeCharacters(clean.substring(from, at));
                writer.writeEntityRef("#13");
                from = at + 1;
            }
            writer.writeCharacters(clean.substring(from));
            writer.writeEndElement();
        });
    }

    /** Writes something that was written before. */
    public XmlText raw(String xml) {
        return run(() -> {
            // Ends the start tag that may still be open.
            writer.writeCharacters("");
            writer.flush();
            text.write(xml);
        });
    }

    /** XML 1.0 has no place for most control characters, however they are escaped. */
    private static String clean(String content) {
        for (int i = 0; i < content.length(); i++) {
            char c = content.charAt(i);
            if (c < 0x20 || c >= Character.MIN_SURROGATE) {
                return replaced(content);
            }
        }
        return content;
    }

    private static String replaced(String content) {
        return content.codePoints()
                .map(point -> isAllowed(point) ? point : 0xFFFD)
                .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                .toString();
    }

    private static boolean isAllowed(int point) {
        return point == '\t'
                || point == '\n'
                || point == '\r'
                || (point >= 0x20 && point <= 0xD7FF)
                || (point >= 0xE000 && point <= 0xFFFD)
                || point >= 0x10000;
    }

    private void attributes(@Nullable String[] attributes) throws XMLStreamException {
        for (int i = 0; i < attributes.length; i += 2) {
            var value = attributes[i + 1];
            if (value != null) {
                writer.writeAttribute(String.valueOf(attributes[i]), clean(value));
            }
        }
    }

    @FunctionalInterface
    private interface Writing {
        void run() throws XMLStreamException;
    }

    private XmlText run(Writing writing) {
        try {
            writing.run();
            return this;
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public String toString() {
        run(writer::flush);
        return text.toString();
    }
}
