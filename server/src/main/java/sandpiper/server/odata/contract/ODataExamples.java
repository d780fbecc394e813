package sandpiper.server.odata.contract;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeKind;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.CallType;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ValueType;
import sandpiper.server.json.JsonText;
import sandpiper.server.odata.metadata.EdmTypes;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.metadata.EntityShapes;
import sandpiper.server.odata.metadata.OperationWriter;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.service.ValueExamples;

/** Requests to try a service with, to be changed and sent. */
final class ODataExamples {
    private final ServiceModel model;
    private final List<Example> examples = new ArrayList<>();

    private ODataExamples(ServiceModel model) {
        this.model = model;
    }

    /**
     * One request.
     *
     * @param path from the root of the service
     * @param body JSON, or {@code null} for none
     */
    record Example(String label, String method, String path, @Nullable String body) {}

    static List<Example> of(ServiceModel model) {
        var examples = new ODataExamples(model);
        examples.examples.add(new Example("metadata", "GET", "$metadata", null));
        EntityShapes.sets(model.service().resources()).forEach(examples::add);
        for (var function : model.service().functions()) {
            examples.call(new CallType.OfFunction(function.definition()), "", function.name());
        }
        return examples.examples;
    }

    private void add(String set, ResourceType resource) {
        var shape = model.shape(set);
        if (resource.offers(Operation.QUERY)) {
            add("query " + set, "GET", set + "?" + options(shape, resource), null);
        }
        if (resource.offers(Operation.READ)) {
            add("read " + set, "GET", key(set, shape), null);
        }
        if (resource.offers(Operation.CREATE)) {
            add("create " + set, "POST", set, body(shape, true));
        }
        if (resource.offers(Operation.UPDATE)) {
            add("update " + set, "PATCH", key(set, shape), body(shape, false));
        }
        if (resource.offers(Operation.REMOVE)) {
            add("remove " + set, "DELETE", key(set, shape), null);
        }
        for (var one : resource.calls()) {
            call(one, key(set, shape) + "/", one.name() + " " + set);
        }
    }

    private void call(CallType call, String before, String label) {
        var path = before + call.name();
        if (!OperationWriter.isFunction(call)) {
            add(label, "POST", path, JsonText.writePretty(ValueExamples.of(call.parameters())));
            return;
        }
        var arguments =
                call.parameters().entries().stream()
                        .map(one -> one.name() + "=" + literal(one.type()))
                        .toList();
        add(label, "GET", path + "(" + String.join(",", arguments) + ")", null);
    }

    private static String literal(ValueType type) {
        var example = ValueExamples.of(type);
        boolean quoted =
                type instanceof ValueType.Single(var field)
                        && EdmTypes.primitive(field.type()) == EdmPrimitiveTypeKind.String;
        return quoted ? "'" + example + "'" : String.valueOf(example);
    }

    private void add(String label, String method, String path, @Nullable String body) {
        examples.add(new Example(label, method, path, body));
    }

    private static String options(EntityShape shape, ResourceType resource) {
        var options = new ArrayList<>(List.of("$top=5", "$count=true"));
        resource.sortable().stream()
                .findFirst()
                .flatMap(path ->
                        shape.values().stream()
                                .filter(value -> value.path().written().equals(path.written()))
                                .findFirst())
                .ifPresent(value -> options.add("$orderby=" + value.name() + " desc"));
        shape.references().stream()
                .findFirst()
                .ifPresent(one -> options.add("$expand=" + one.name()));
        return String.join("&", options);
    }

    private static String key(String set, EntityShape shape) {
        return shape.isKeyedById()
                ? set + "(ID)"
                : shape.key().size() == 1
                        ? set + "('KEY')"
                        : set
                                + "("
                                + String.join(
                                        ",",
                                        shape.key().stream().map(name -> name + "='KEY'").toList())
                                + ")";
    }

    private static String body(EntityShape shape, boolean creating) {
        var body = values(shape, creating);
        for (var items : shape.items()) {
            if (creating ? items.use().creatable() : items.use().updatable()) {
                body.put(items.name(), List.of(values(items.target(), creating)));
            }
        }
        return JsonText.writePretty(body);
    }

    private static Map<String, Object> values(EntityShape shape, boolean creating) {
        var values = new LinkedHashMap<String, Object>();
        shape.values().stream()
                .filter(value -> creating ? value.use().creatable() : value.use().updatable())
                .forEach(value -> values.put(value.name(), value.path().last().type().example()));
        return values;
    }
}
