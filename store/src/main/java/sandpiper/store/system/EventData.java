package sandpiper.store.system;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** What events tell, as JSON (RFC 8259) in one column. Numbers keep their decimal places. */
final class EventData {
    private static final JsonMapper MAPPER =
            JsonMapper.builder()
                    .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
                    .enable(DeserializationFeature.USE_LONG_FOR_INTS)
                    .build();
    private static final TypeReference<Map<String, @Nullable Object>> DATA =
            new TypeReference<>() {};

    private EventData() {}

    static String write(Map<String, @Nullable Object> data) {
        return MAPPER.writeValueAsString(data);
    }

    static Map<String, @Nullable Object> read(String text) {
        return MAPPER.readValue(text, DATA);
    }
}
