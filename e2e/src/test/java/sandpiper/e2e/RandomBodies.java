package sandpiper.e2e;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/** Bodies as the schemas of a contract ask for them, and now and then not. */
final class RandomBodies {
    private static final List<Object> ODD =
            List.of(
                    "",
                    " ",
                    "x".repeat(300),
                    -1L,
                    1L << 53,
                    new BigDecimal("0.123456789"),
                    true,
                    List.of(),
                    Map.of(),
                    "ü⛵\u0301");

    private final JsonNode schemas;
    private final Random random;

    /** {@code schemas} are those of the contract's components. */
    RandomBodies(JsonNode schemas, Random random) {
        this.schemas = schemas;
        this.random = random;
    }

    /** A value of a schema; one in so many of its parts is wrong, none for 0. */
    @Nullable Object of(JsonNode schema, int oneIn) {
        if (oneIn > 0 && random.nextInt(oneIn) == 0) {
            return random.nextInt(8) == 0 ? null : ODD.get(random.nextInt(ODD.size()));
        }
        if (schema.has("$ref")) {
            var ref = schema.path("$ref").asString();
            return of(schemas.path(ref.substring(ref.lastIndexOf('/') + 1)), oneIn);
        }
        if (schema.has("oneOf")) {
            return of(
                    schema.path("oneOf").path(random.nextInt(schema.path("oneOf").size())), oneIn);
        }
        if (schema.has("enum")) {
            var one = schema.path("enum").path(random.nextInt(schema.path("enum").size()));
            return one.isNull() ? null : one.asString();
        }
        var types = new ArrayList<String>();
        if (schema.path("type").isArray()) {
            schema.path("type").forEach(type -> types.add(type.asString()));
        } else {
            types.add(schema.path("type").asString("object"));
        }
        return value(schema, types.get(random.nextInt(types.size())), oneIn);
    }

    private @Nullable Object value(JsonNode schema, String type, int oneIn) {
        return switch (type) {
            case "null" -> null;
            case "boolean" -> random.nextBoolean();
            case "integer" -> (long) random.nextInt(2_000) - 500;
            case "number" -> {
                var step = schema.path("multipleOf").decimalValue(BigDecimal.ONE);
                yield step.multiply(BigDecimal.valueOf(random.nextInt(20_000) - 5_000L));
            }
            case "array" -> {
                var items = new ArrayList<@Nullable Object>();
                for (int i = random.nextInt(3); i > 0; i--) {
                    items.add(of(schema.path("items"), oneIn));
                }
                yield items;
            }
            case "object" -> object(schema, oneIn);
            default -> text(schema);
        };
    }

    private Map<String, @Nullable Object> object(JsonNode schema, int oneIn) {
        var members = new LinkedHashMap<String, @Nullable Object>();
        if (schema.path("properties").has("sha256")) {
            // What is in a file fits its digest, or it is left to the service.
            members.put("name", "note%d.txt".formatted(random.nextInt(9)));
            members.put("content", random.nextInt(9) == 0 ? "iVBORw0KGgo=" : "QWhveSE=");
            return members;
        }
        var required = new ArrayList<String>();
        schema.path("required").forEach(name -> required.add(name.asString()));
        schema.path("properties")
                .properties()
                .forEach(one -> {
                    boolean always =
                            required.contains(one.getKey())
                                    && !(oneIn > 0 && random.nextInt(oneIn * 2) == 0);
                    if (always || random.nextInt(3) > 0) {
                        members.put(one.getKey(), of(one.getValue(), oneIn));
                    }
                });
        if (oneIn > 0 && random.nextInt(oneIn * 2) == 0) {
            members.put("unheardOf", 1L);
        }
        return members;
    }

    private String text(JsonNode schema) {
        return switch (schema.path("format").asString("")) {
            case "date" ->
                    "20%02d-0%d-1%d"
                            .formatted(
                                    random.nextInt(100), 1 + random.nextInt(9), random.nextInt(10));
            case "date-time" ->
                    "2026-05-0%dT1%d:00:00Z".formatted(1 + random.nextInt(9), random.nextInt(10));
            case "duration" -> "P%dDT%dH".formatted(random.nextInt(9), random.nextInt(24));
            case "uuid" -> new UUID(random.nextLong(), random.nextLong()).toString();
            case "email" -> "a%d@example.org".formatted(random.nextInt(99));
            case "uri" -> "https://example.org/%d".formatted(random.nextInt(99));
            default ->
                    schema.path("pattern").asString("").startsWith("^[A-Z]")
                            ? List.of("EUR", "JPY", "BHD").get(random.nextInt(3))
                            : schema.has("pattern")
                                    ? "1%d:3%d:00".formatted(random.nextInt(10), random.nextInt(10))
                                    : words(schema);
        };
    }

    private String words(JsonNode schema) {
        int most = Math.min(schema.path("maxLength").asInt(12), 12);
        var text = new StringBuilder();
        int length = Math.max(schema.path("minLength").asInt(0), random.nextInt(most + 1));
        for (int i = 0; i < length; i++) {
            text.append("abcxyz,\\/' ü9".charAt(random.nextInt(13)));
        }
        return text.toString();
    }
}
