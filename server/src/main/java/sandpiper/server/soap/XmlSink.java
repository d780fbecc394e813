package sandpiper.server.soap;

import org.jspecify.annotations.Nullable;
import sandpiper.server.service.RecordSink;
import sandpiper.server.soap.xml.XmlText;
import tools.jackson.core.SerializableString;

/** Elements of a record; what is empty is left out. */
record XmlSink(XmlText to) implements RecordSink {
    @Override
    public void value(SerializableString name, @Nullable Object plain) {
        XmlValues.write(to, name.getValue(), plain);
    }

    @Override
    public void begin(SerializableString name) {
        to.open(name.getValue());
    }

    @Override
    public void end() {
        to.close();
    }

    @Override
    public void beginItems(SerializableString name) {
        to.open(name.getValue());
    }

    @Override
    public void beginItem() {
        to.open(XmlValues.ITEM);
    }

    @Override
    public void endItems() {
        to.close();
    }
}
