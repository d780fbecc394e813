package sandpiper.server.contract;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.Release;
import sandpiper.model.release.ServiceType;
import sandpiper.server.json.Bounds;

/** The JSON Schema (2020-12) of everything a service takes and gives. */
public final class ResourceSchemas {
    private static final String IN_OPENAPI = "#/components/schemas/";
    private static final String HERE = "#/$defs/";

    private ResourceSchemas() {}

    /** One document; each thing is under {@code $defs}, by the name it has in every contract. */
    public static Map<String, @Nullable Object> of(
            Release release, ServiceType service, String server, Bounds bounds) {
        var contract = OpenApiContract.of(release, service, server, bounds);
        var document = new LinkedHashMap<String, @Nullable Object>();
        document.put("$schema", "https://json-schema.org/draft/2020-12/schema");
        document.put("$id", "urn:sandpiper:%s:v%d".formatted(service.name(), service.version()));
        document.put("title", service.label());
        if (service.describe() != null) {
            document.put("description", service.describe());
        }
        var schemas = new LinkedHashMap<String, @Nullable Object>();
        contract.getComponents()
                .getSchemas()
                .forEach((name, schema) -> schemas.put(name, moved(ContractSchema.plain(schema))));
        document.put("$defs", schemas);
        return document;
    }

    /** The same with references to where the definitions are in this document. */
    private static @Nullable Object moved(@Nullable Object node) {
        return switch (node) {
            case Map<?, ?> map -> {
                var copy = new LinkedHashMap<String, @Nullable Object>();
                map.forEach((name, value) -> copy.put(String.valueOf(name), moved(value)));
                yield copy;
            }
            case List<?> list -> {
                // A list of allowed values may have an empty one among them.
                var copy = new ArrayList<@Nullable Object>();
                list.forEach(item -> copy.add(moved(item)));
                yield copy;
            }
            case String text when text.startsWith(IN_OPENAPI) ->
                    HERE + text.substring(IN_OPENAPI.length());
            case null -> null;
            default -> node;
        };
    }
}
