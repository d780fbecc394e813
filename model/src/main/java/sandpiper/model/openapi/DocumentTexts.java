package sandpiper.model.openapi;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.databind.json.JsonMapper;

/** Reads the text of a document, which may be JSON or YAML, and writes one as JSON. */
final class DocumentTexts {
    /** Characters; the largest known documents have a third of this. */
    private static final int LARGEST = 32 << 20;

    private static final JsonMapper JSON =
            JsonMapper.builder().enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION).build();

    private DocumentTexts() {}

    static Map<String, Object> read(String text) {
        if (text.length() > LARGEST) {
            throw new ApiDocumentException(
                    "A document may have at most %,d characters, but this has %,d."
                            .formatted(LARGEST, text.length()));
        }
        var tree = text.stripLeading().startsWith("{") ? json(text) : yaml(text);
        if (!(tree instanceof Map<?, ?>)) {
            throw new ApiDocumentException("This is not a document of OpenAPI: it has no entries.");
        }
        return Trees.map(tree);
    }

    static String write(Map<String, Object> tree) {
        return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(tree) + "\n";
    }

    private static @Nullable Object json(String text) {
        try {
            return JSON.readValue(text, Object.class);
        } catch (JacksonException e) {
            var at = e.getLocation();
            throw new ApiDocumentException(
                    "This is not JSON, at line %d: %s."
                            .formatted(
                                    at == null ? 1 : at.getLineNr(),
                                    firstLine(e.getOriginalMessage())));
        }
    }

    private static @Nullable Object yaml(String text) {
        var settings =
                LoadSettings.builder()
                        .setAllowDuplicateKeys(false)
                        .setMaxAliasesForCollections(50)
                        .setCodePointLimit(LARGEST)
                        .build();
        try {
            return plain(new Load(settings).loadFromString(text));
        } catch (YamlEngineException e) {
            throw new ApiDocumentException(
                    "This is neither JSON nor YAML: %s.".formatted(firstLine(e.getMessage())));
        }
    }

    /** The same with texts as keys, as JSON has them: answers in YAML may stand under numbers. */
    private static @Nullable Object plain(@Nullable Object value) {
        return switch (value) {
            case Map<?, ?> map -> {
                var texts = new LinkedHashMap<String, @Nullable Object>();
                map.forEach((key, one) -> texts.put(String.valueOf(key), plain(one)));
                yield texts;
            }
            case List<?> list -> {
                var plain = new ArrayList<@Nullable Object>();
                list.forEach(one -> plain.add(plain(one)));
                yield plain;
            }
            case null, default -> value;
        };
    }

    private static String firstLine(@Nullable String message) {
        return message == null
                ? "it cannot be read"
                : message.lines().findFirst().orElse("").replaceFirst("\\.$", "");
    }
}
