package sandpiper.server.odata;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeKind;
import org.jspecify.annotations.Nullable;
import org.springframework.web.util.UriUtils;
import sandpiper.server.odata.metadata.EdmTypes;
import sandpiper.server.odata.metadata.EntityShape;

/**
 * Where an entity will be before it is made, so that what is done together with it can mean it
 * (Protocol 11.7.3.1).
 */
final class MadeEntity {
    private MadeEntity() {}

    /**
     * The key of its address with its brackets; {@code null} when nobody can know it before.
     *
     * @param values as they were given, by the names of fields
     * @param id by which it can be found where a single text is the key
     */
    static @Nullable String key(EntityShape shape, Map<String, @Nullable Object> values, UUID id) {
        if (shape.isKeyedById()) {
            return "(%s)".formatted(id);
        }
        if (shape.key().size() == 1 && isText(shape, shape.key().getFirst())) {
            return "('%s')".formatted(id);
        }
        boolean given = shape.key().stream().allMatch(name -> value(shape, values, name) != null);
        return given
                ? shape.key().stream()
                        .map(name -> name + "=" + literal(value(shape, values, name)))
                        .collect(Collectors.joining(",", "(", ")"))
                : null;
    }

    private static boolean isText(EntityShape shape, String name) {
        return shape.value(name)
                .filter(value ->
                        EdmTypes.primitive(value.path().last().type())
                                == EdmPrimitiveTypeKind.String)
                .isPresent();
    }

    private static @Nullable Object value(
            EntityShape shape, Map<String, @Nullable Object> values, String name) {
        var given = shape.value(name).map(value -> values.get(value.path().last().name()));
        boolean isNumber = given.orElse(null) instanceof Number;
        return isNumber || (given.orElse(null) instanceof String && isText(shape, name))
                ? given.orElse(null)
                : null;
    }

    private static String literal(@Nullable Object value) {
        return value instanceof String text
                ? "'" + UriUtils.encode(text.replace("'", "''"), StandardCharsets.UTF_8) + "'"
                : String.valueOf(value);
    }
}
