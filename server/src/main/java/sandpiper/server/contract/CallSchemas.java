package sandpiper.server.contract;

import io.swagger.v3.oas.models.media.Schema;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.CallType;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.Release;
import sandpiper.model.release.ValueType;

/** The schemas of what functions take and give back, and of what events tell. */
public final class CallSchemas {
    private final FieldSchemas fields;

    CallSchemas(FieldSchemas fields) {
        this.fields = fields;
    }

    /** For a document of its own, where nothing is shared with operations on records. */
    public static Map<String, Object> of(Release release, ValueType.Group group) {
        return ContractSchema.plain(new CallSchemas(new FieldSchemas(release)).group(group));
    }

    /** What a call does, with whose rights. */
    static String described(CallType call) {
        var words =
                new StringBuilder(Objects.requireNonNullElse(call.describe(), call.label() + "."));
        switch (call) {
            case CallType.OfTransition(var transition) ->
                    words.append(" It is possible only from ")
                            .append(String.join(" or ", transition.from()))
                            .append('.');
            case CallType.OfFunction(var function) ->
                    words.append(
                            function.ownRights()
                                    ? " It runs with rights of its own."
                                    : " It runs with the rights of its caller.");
        }
        return words.toString();
    }

    /** Arguments, where nothing else may stand. */
    Schema<?> arguments(ValueType.Group parameters) {
        var schema = group(parameters);
        schema.setAdditionalProperties(false);
        return schema;
    }

    /**
     * What is answered.
     *
     * @param returns {@code null} for nothing
     * @param record the schema of the record beside it, or {@code null} when there is none
     */
    Schema<?> answer(@Nullable ValueType returns, @Nullable String record) {
        var properties = new LinkedHashMap<String, Schema<?>>();
        properties.put(
                "result",
                returns == null
                        ? ContractSchema.nothing().description("It returns nothing.")
                        : ContractSchema.nullable(value(returns)));
        if (record != null) {
            properties.put("record", ContractSchema.ref(record));
        }
        var schema = ContractSchema.object(properties);
        schema.setRequired(new ArrayList<>(properties.keySet()));
        return schema.description("What came of the call.");
    }

    private Schema<?> group(ValueType.Group group) {
        var properties = new LinkedHashMap<String, Schema<?>>();
        for (var entry : group.entries()) {
            var schema = value(entry.type()).title(entry.label());
            if (entry.describe() != null) {
                schema.setDescription(entry.describe());
            }
            properties.put(
                    entry.name(), entry.required() ? schema : ContractSchema.nullable(schema));
        }
        var schema = ContractSchema.object(properties);
        ContractSchema.require(
                schema,
                group.entries().stream().filter(Parameter::required).map(Parameter::name).toList());
        return schema;
    }

    private Schema<?> value(ValueType type) {
        return switch (type) {
            case ValueType.Single(var field) -> fields.of(field);
            case ValueType.Many(var item) -> ContractSchema.list(value(item));
            case ValueType.Group group -> group(group);
        };
    }
}
