package sandpiper.server.json;

import java.io.ByteArrayOutputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.StreamWriteFeature;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.json.JsonMapper;

/**
 * Writes plain values as JSON (RFC 8259): maps, lists, text, {@link Long}, {@link BigDecimal},
 * booleans. Numbers stay exact. {@link JsonReader} reads it again.
 */
public final class JsonText {
    /** Bytes of a usual answer, so that few have to be copied to grow. */
    private static final int LIKELY_LENGTH = 2_048;

    private static final JsonMapper MAPPER =
            JsonMapper.builder(
                            JsonFactory.builder()
                                    .enable(StreamWriteFeature.WRITE_BIGDECIMAL_AS_PLAIN)
                                    .build())
                    .build();

    private JsonText() {}

    /** Writes plain values; numbers never in exponents. */
    public static String write(Object value) {
        return MAPPER.writeValueAsString(value);
    }

    /** The bytes of what is written to a generator, in UTF-8. */
    public static byte[] bytes(Consumer<JsonGenerator> content) {
        var bytes = new ByteArrayOutputStream(LIKELY_LENGTH);
        try (var generator = MAPPER.createGenerator(bytes)) {
            content.accept(generator);
        }
        return bytes.toByteArray();
    }

    /** The same as text. */
    public static String text(Consumer<JsonGenerator> content) {
        return new String(bytes(content), StandardCharsets.UTF_8);
    }

    /** Writes a plain value as a part of something larger. */
    public static void write(JsonGenerator to, @Nullable Object value) {
        switch (value) {
            case null -> to.writeNull();
            case String text -> to.writeString(text);
            case Long number -> to.writeNumber(number);
            case BigDecimal number -> to.writeNumber(number);
            case Boolean flag -> to.writeBoolean(flag);
            default -> to.writePOJO(value);
        }
    }

    /** Writes plain values with line breaks, for people. */
    public static String writePretty(Object value) {
        return MAPPER.writerWithDefaultPrettyPrinter().writeValueAsString(value);
    }
}
