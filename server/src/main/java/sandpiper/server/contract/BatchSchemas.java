package sandpiper.server.contract;

import io.swagger.v3.oas.models.media.Discriminator;
import io.swagger.v3.oas.models.media.JsonSchema;
import io.swagger.v3.oas.models.media.Schema;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import sandpiper.model.Names;
import sandpiper.model.release.CallType;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;

/** What a batch may bring: a list of things to do, each with the values of what it does. */
final class BatchSchemas {
    private static final int MOST = 1_000;
    private static final String DO = "do";

    private final String one;
    private final RecordSchemas schemas;
    private final Schema<?> item = new JsonSchema();
    private final Discriminator discriminator = new Discriminator().propertyName(DO);

    private BatchSchemas(String one, RecordSchemas schemas) {
        this.one = one;
        this.schemas = schemas;
    }

    /** Of a resource whose single records are called {@code one}; what it points to is kept. */
    static Schema<?> of(String one, ResourceType resource, RecordSchemas schemas) {
        return new BatchSchemas(one, schemas).batch(resource);
    }

    private Schema<?> batch(ResourceType resource) {
        boolean creates = resource.offers(Operation.CREATE);
        boolean updates = resource.offers(Operation.UPDATE);
        if (creates) {
            add(
                    "create",
                    ContractSchema.ref(schemas.created(one + "Create", resource)),
                    Map.of(),
                    List.of());
        }
        if (updates) {
            add(
                    "update",
                    ContractSchema.ref(schemas.changed(one + "Update", resource)),
                    Map.of("key", key()),
                    List.of("key"));
        }
        if (creates && updates && !resource.object().key().isEmpty()) {
            add(
                    "save",
                    ContractSchema.ref(schemas.saved(one + "Save", resource)),
                    Map.of("key", key()),
                    List.of());
        }
        if (!resource.calls().isEmpty()) {
            var call = new LinkedHashMap<String, Schema<?>>();
            call.put("key", key());
            var names = resource.calls().stream().map(CallType::name).map(Names::address).toList();
            call.put("call", ContractSchema.one(names).description("What is called."));
            var values = ContractSchema.object(Map.of()).description("Its arguments.");
            values.setAdditionalProperties(true);
            add("call", values, call, List.of("key", "call"));
        }
        item.setDiscriminator(discriminator);
        schemas.put(one + "BatchItem", item);
        var items = ContractSchema.list(ContractSchema.ref(one + "BatchItem"));
        items.setMaxItems(MOST);
        return ContractSchema.closed(Map.of("items", items), List.of("items"));
    }

    private static Schema<?> key() {
        return ContractSchema.text().description("The record's key or its id.");
    }

    /** One kind of item; {@code required} is what it needs besides what each needs. */
    private void add(
            String what, Schema<?> values, Map<String, Schema<?>> others, List<String> required) {
        var properties = new LinkedHashMap<String, Schema<?>>();
        var name = one + "Batch" + Character.toUpperCase(what.charAt(0)) + what.substring(1);
        properties.put(DO, ContractSchema.one(List.of(what)));
        properties.putAll(others);
        if (!what.equals("create")) {
            properties.put(
                    "version", ContractSchema.number().description("The version that was read."));
        }
        properties.put("values", values);
        schemas.put(
                name,
                ContractSchema.closed(
                        properties,
                        Stream.concat(Stream.of(DO, "values"), required.stream()).toList()));
        item.addOneOfItem(ContractSchema.ref(name));
        discriminator.mapping(what, "#/components/schemas/" + name);
    }
}
