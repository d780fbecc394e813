package sandpiper.server.contract;

import com.fasterxml.jackson.core.type.TypeReference;
import io.swagger.v3.oas.models.media.JsonSchema;
import io.swagger.v3.oas.models.media.Schema;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Schemas of JSON Schema 2020-12 as OpenAPI 3.1 has them, in the words a contract needs. */
final class ContractSchema {
    private static final String NULL = "null";
    private static final String SCHEMAS = "#/components/schemas/";

    private ContractSchema() {}

    static Schema<?> text() {
        return typed("string");
    }

    /** A whole number of 64 bits. */
    static Schema<?> number() {
        return typed("integer").format("int64");
    }

    static Schema<?> nothing() {
        return typed(NULL);
    }

    /** One of some texts. */
    static Schema<?> one(List<String> texts) {
        var schema = new JsonSchema();
        schema.setTypes(Set.of("string"));
        schema.setEnum(List.copyOf(texts));
        return schema;
    }

    static Schema<?> typed(String type) {
        return new JsonSchema().types(Set.of(type));
    }

    /** An object; what is not named may stand there too. */
    static Schema<?> object(Map<String, Schema<?>> properties) {
        var schema = typed("object");
        properties.forEach(schema::addProperty);
        return schema;
    }

    /** An object where nothing else may stand. */
    static Schema<?> closed(Map<String, Schema<?>> properties, List<String> required) {
        var schema = object(properties);
        require(schema, required);
        schema.setAdditionalProperties(false);
        return schema;
    }

    static void require(Schema<?> schema, List<String> required) {
        if (!required.isEmpty()) {
            schema.setRequired(required);
        }
    }

    static Schema<?> list(Schema<?> items) {
        return typed("array").items(items);
    }

    /** Points to a schema of the contract by its name. */
    static Schema<?> ref(String name) {
        return new JsonSchema().$ref(SCHEMAS + name);
    }

    /** A schema given as plain values, as types describe themselves. */
    static Schema<?> of(Map<String, Object> plain) {
        return ContractText.MAPPER.convertValue(plain, Schema.class);
    }

    /** A schema as plain values, for a document of another kind. */
    static Map<String, Object> plain(Schema<?> schema) {
        return ContractText.MAPPER.convertValue(
                schema, new TypeReference<LinkedHashMap<String, Object>>() {});
    }

    /** The same schema, and null beside what it allows. */
    static Schema<?> nullable(Schema<?> schema) {
        var types = new LinkedHashSet<>(schema.getTypes());
        types.add(NULL);
        schema.setTypes(types);
        allowNull(schema);
        return schema;
    }

    @SuppressWarnings("unchecked") // an enumeration holds what JSON has, here texts
    private static void allowNull(Schema<?> schema) {
        var codes = schema.getEnum();
        if (codes != null) {
            var withNull = new ArrayList<@Nullable Object>(codes);
            withNull.add(null);
            ((Schema<Object>) schema).setEnum(withNull);
        }
    }
}
