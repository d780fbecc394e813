package sandpiper.server.odata;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.apache.olingo.commons.core.Encoder;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.Field;
import sandpiper.server.odata.metadata.EdmTypes;
import sandpiper.server.odata.metadata.EntityShape;

/**
 * The key predicate of entities of a type (URL Conventions 4.3.1).
 *
 * @param parts the values of the key in its order; empty where the public id is the key
 */
record EntityKey(List<Part> parts) {

    /** A value of the key, and where it stands among the values of a record. */
    record Part(String name, Field field, int place) {}

    /**
     * @param places where values stand, by their paths; those of the key are among them
     */
    static EntityKey of(EntityShape shape, Map<String, Integer> places) {
        return new EntityKey(
                shape.isKeyedById()
                        ? List.of()
                        : shape.key().stream()
                                .map(name -> shape.value(name).orElseThrow())
                                .map(value ->
                                        new Part(
                                                value.name(),
                                                value.path().last(),
                                                places.getOrDefault(value.path().written(), -1)))
                                .toList());
    }

    /** As it stands in an address: {@code ('S-1')}, {@code (area='N',number=12)}. */
    String predicate(RecordView view) {
        return parts.isEmpty()
                ? "(" + view.id() + ")"
                : parts.stream()
                        .map(part ->
                                parts.size() == 1
                                        ? literal(part, view)
                                        : part.name() + "=" + literal(part, view))
                        .collect(Collectors.joining(",", "(", ")"));
    }

    private static String literal(Part part, RecordView view) {
        @Nullable Object plain =
                part.place() < 0
                        ? null
                        : PlainRecords.write(part.field(), view.values()[part.place()]);
        var text = String.valueOf(plain);
        return switch (EdmTypes.primitive(part.field().type())) {
            case String -> Encoder.encode("'" + text.replace("'", "''") + "'");
            case Duration -> Encoder.encode("duration'" + text + "'");
            default -> Encoder.encode(text);
        };
    }
}
