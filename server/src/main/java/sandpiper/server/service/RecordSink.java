package sandpiper.server.service;

import org.jspecify.annotations.Nullable;
import tools.jackson.core.SerializableString;

/** Where a {@link RecordWriter} writes the members of a record to, in their order. */
public interface RecordSink {

    /** A value in its plain form, {@code null} where there is none. */
    void value(SerializableString name, @Nullable Object plain);

    /** Begins what was chosen of a record that is referred to. */
    void begin(SerializableString name);

    /** Ends it, or a line item. */
    void end();

    /** Begins the line items of a part; each is begun and ended by itself. */
    void beginItems(SerializableString name);

    /** Begins a line item. */
    void beginItem();

    /** Ends the line items of a part. */
    void endItems();
}
