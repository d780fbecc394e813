package sandpiper.server.service;

import org.jspecify.annotations.Nullable;
import sandpiper.server.json.JsonText;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.SerializableString;

/** Members of a JSON object. */
record JsonSink(JsonGenerator to) implements RecordSink {
    @Override
    public void value(SerializableString name, @Nullable Object plain) {
        to.writeName(name);
        JsonText.write(to, plain);
    }

    @Override
    public void begin(SerializableString name) {
        to.writeName(name);
        to.writeStartObject();
    }

    @Override
    public void end() {
        to.writeEndObject();
    }

    @Override
    public void beginItems(SerializableString name) {
        to.writeName(name);
        to.writeStartArray();
    }

    @Override
    public void beginItem() {
        to.writeStartObject();
    }

    @Override
    public void endItems() {
        to.writeEndArray();
    }
}
