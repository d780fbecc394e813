package sandpiper.server.contract;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import sandpiper.model.Names;
import sandpiper.model.release.CallType;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.model.release.ServiceType;
import sandpiper.server.contract.ContractParts.Failing;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.service.ResourceNames;

/**
 * Writes a service down as OpenAPI 3.1 (with JSON Schema 2020-12), as nested maps in a fixed order.
 * Labels, descriptions and choices come from the definitions, so that the contract needs no other
 * document beside it.
 */
public final class OpenApiContract {
    private final ServiceType service;
    private final ContractSchemas schemas;
    private final CallSchemas calls;
    private final ContractParts parts = new ContractParts();

    private OpenApiContract(Release release, ServiceType service) {
        this.service = service;
        this.schemas = new ContractSchemas(release);
        this.calls = new CallSchemas(schemas);
    }

    /**
     * The contract of a service; {@code server} is the address of the instance, without a slash at
     * the end.
     */
    public static Map<String, Object> of(Release release, ServiceType service, String server) {
        return new OpenApiContract(release, service).document(server);
    }

    private Map<String, Object> document(String server) {
        var document = new LinkedHashMap<String, Object>();
        document.put("openapi", "3.1.0");
        document.put(
                "info",
                map(
                        "title", service.label(),
                        "version", String.valueOf(service.version()),
                        "description", describe(service.describe(), service.label()),
                        "license",
                                map(
                                        "name",
                                        "Proprietary",
                                        "identifier",
                                        "LicenseRef-Proprietary")));
        document.put(
                "servers",
                List.of(
                        map(
                                "url",
                                server
                                        + Protocol.REST.address(
                                                service.name(), service.version()))));
        document.put("security", List.of(map("basic", List.of()), map("oauth2", List.of())));
        document.put("tags", tags());
        var paths = new LinkedHashMap<String, Object>();
        service.resources().forEach(resource -> paths(resource, paths));
        for (var function : service.functions()) {
            paths.put("/" + Names.address(function.name()), map("post", function(function)));
        }
        document.put("paths", paths);
        var components = new LinkedHashMap<String, Object>();
        components.put(
                "securitySchemes",
                map(
                        "basic",
                        map(
                                "type",
                                "http",
                                "scheme",
                                "basic",
                                "description",
                                "The id and secret of a client."),
                        "oauth2",
                        map(
                                "type",
                                "oauth2",
                                "description",
                                "A token for a client (RFC 6749, client credentials); good for ten"
                                        + " minutes.",
                                "flows",
                                map(
                                        "clientCredentials",
                                        map(
                                                "tokenUrl",
                                                server + "/oauth2/token",
                                                "scopes",
                                                map())))));
        components.put("parameters", parts.parameters());
        components.put("responses", parts.responses(schemas.problem()));
        components.put("schemas", schemas.all());
        document.put("components", components);
        return document;
    }

    private List<Map<String, Object>> tags() {
        var tags = new ArrayList<Map<String, Object>>();
        service.resources()
                .forEach(resource ->
                        tags.add(map("name", resource.name(), "description", about(resource))));
        if (!service.functions().isEmpty()) {
            tags.add(
                    map(
                            "name",
                            ServiceType.FUNCTIONS,
                            "description",
                            "What can be called without a record."));
        }
        return tags;
    }

    private static String describe(@Nullable String described, String otherwise) {
        return described == null ? otherwise + "." : described;
    }

    /** What a resource is, which records it shows and what new ones have. */
    private static String about(ResourceType resource) {
        var about = new StringBuilder(describe(resource.describe(), resource.object().plural()));
        var where = resource.where();
        if (where != null) {
            about.append(" Shows only those for which `").append(where.text()).append("`.");
        }
        if (!resource.presets().isEmpty()) {
            about.append(" New ones have ")
                    .append(
                            resource.presets().entrySet().stream()
                                    .map(one ->
                                            "`%s: %s`"
                                                    .formatted(
                                                            one.getKey().name(),
                                                            one.getValue().written()))
                                    .sorted()
                                    .collect(Collectors.joining(", ")))
                    .append('.');
        }
        return about.toString();
    }

    private void paths(ResourceType resource, Map<String, Object> paths) {
        var collection = new LinkedHashMap<String, Object>();
        if (resource.offers(Operation.QUERY)) {
            collection.put("get", query(resource));
        }
        if (resource.offers(Operation.CREATE)) {
            collection.put("post", create(resource));
        }
        if (!collection.isEmpty()) {
            paths.put("/" + resource.name(), collection);
        }
        var single = new LinkedHashMap<String, Object>();
        if (resource.offers(Operation.READ)) {
            single.put("get", read(resource));
        }
        if (resource.offers(Operation.UPDATE)) {
            single.put("patch", update(resource));
            if (resource.offers(Operation.CREATE) && !resource.object().key().isEmpty()) {
                single.put("put", save(resource));
            }
        }
        if (resource.offers(Operation.REMOVE)) {
            single.put("delete", remove(resource));
        }
        if (!single.isEmpty()) {
            single.put("parameters", List.of(keyParameter(resource)));
            paths.put("/" + resource.name() + "/{key}", single);
        }
        for (var one : resource.calls()) {
            var call = new LinkedHashMap<String, Object>();
            call.put("post", call(resource, one));
            call.put("parameters", List.of(keyParameter(resource)));
            paths.put("/" + resource.name() + "/{key}/" + Names.address(one.name()), call);
        }
        if (resource.offers(Operation.CREATE) || resource.offers(Operation.UPDATE)) {
            paths.put("/" + resource.name() + ":batch", map("post", batch(resource)));
        }
    }

    private static Map<String, Object> keyParameter(ResourceType resource) {
        var key = resource.object().key();
        var what =
                key.isEmpty()
                        ? "The record's id."
                        : "The record's key (%s) or its id.%s"
                                .formatted(
                                        String.join(", ", key),
                                        key.size() > 1
                                                ? " Values have commas between them; a comma in a"
                                                        + " value is written \\,."
                                                : "");
        return map(
                "name",
                "key",
                "in",
                "path",
                "required",
                true,
                "description",
                what,
                "schema",
                map("type", "string"));
    }

    private Map<String, Object> operation(
            ResourceType resource, String verb, String summary, boolean several) {
        var operation = new LinkedHashMap<String, Object>();
        operation.put("operationId", verb + typeName(resource, several));
        operation.put("tags", List.of(resource.name()));
        operation.put("summary", summary);
        return operation;
    }

    private static String typeName(ResourceType resource, boolean several) {
        return several ? ResourceNames.many(resource) : ResourceNames.one(resource);
    }

    private static String lower(String label) {
        return label.substring(0, 1).toLowerCase(Locale.ROOT) + label.substring(1);
    }

    private Map<String, Object> query(ResourceType resource) {
        var operation =
                operation(resource, "query", "Find " + lower(resource.object().plural()), true);
        operation.put(
                "description",
                "Filter with a FEEL condition, as in `%s`. Pages go on with the cursor `next` of the page before."
                        .formatted(schemas.filterExample(resource)));
        var parameters = new ArrayList<Object>();
        if (!resource.filterable().isEmpty()) {
            parameters.add(
                    parameter(
                            "filter",
                            "A condition over " + written(resource.filterable()) + ".",
                            map("type", "string"),
                            schemas.filterExample(resource)));
        }
        if (!resource.sortable().isEmpty()) {
            parameters.add(
                    parameter(
                            "sort",
                            "Fields with commas between them, a minus before those that run down: "
                                    + written(resource.sortable())
                                    + ".",
                            map("type", "string"),
                            "-" + resource.sortable().getFirst().written()));
        }
        for (var name : List.of("limit", "after", "fields", "count")) {
            parameters.add(parts.parameter(name));
        }
        operation.put("parameters", parameters);
        var item = schemas.answer(typeName(resource, false) + "Item", resource, Operation.QUERY);
        var page = schemas.page(typeName(resource, false) + "Page", item);
        operation.put(
                "responses",
                answers(
                        "200",
                        "One page.",
                        page,
                        Failing.BAD_REQUEST,
                        Failing.UNAUTHORIZED,
                        Failing.FORBIDDEN));
        return operation;
    }

    private static String written(List<sandpiper.model.release.FieldPath> paths) {
        return String.join(", ", paths.stream().map(path -> path.written()).toList());
    }

    private static Map<String, Object> parameter(
            String name, String describe, Map<String, Object> schema, String example) {
        return map(
                "name",
                name,
                "in",
                "query",
                "description",
                describe,
                "schema",
                schema,
                "example",
                example);
    }

    private String answerSchema(ResourceType resource) {
        var operation =
                resource.offers(Operation.READ)
                        ? Operation.READ
                        : resource.offers(Operation.QUERY)
                                ? Operation.QUERY
                                : resource.offers(Operation.UPDATE)
                                        ? Operation.UPDATE
                                        : Operation.CREATE;
        var suffix = operation == Operation.QUERY ? "Item" : "";
        return schemas.answer(typeName(resource, false) + suffix, resource, operation);
    }

    private Map<String, Object> create(ResourceType resource) {
        var operation = operation(resource, "create", "Create " + article(resource), false);
        operation.put("parameters", List.of(parts.parameter("idempotencyKey")));
        var input = schemas.input(typeName(resource, false) + "Create", resource, Operation.CREATE);
        operation.put("requestBody", body(input, "application/json"));
        var answers =
                answers(
                        "201",
                        "It was created.",
                        answerSchema(resource),
                        Failing.BAD_REQUEST,
                        Failing.UNAUTHORIZED,
                        Failing.FORBIDDEN,
                        Failing.CONFLICT,
                        Failing.INVALID);
        putHeaders(answers, "201", true);
        operation.put("responses", answers);
        return operation;
    }

    private static String article(ResourceType resource) {
        var words = Names.withArticle(resource.object().label());
        int space = words.indexOf(' ') + 1;
        return words.substring(0, space) + lower(words.substring(space));
    }

    private Map<String, Object> read(ResourceType resource) {
        var operation = operation(resource, "read", "Read " + article(resource), false);
        operation.put(
                "parameters", List.of(parts.parameter("fields"), parts.parameter("ifNoneMatch")));
        var answers =
                answers(
                        "200",
                        "The record.",
                        answerSchema(resource),
                        Failing.BAD_REQUEST,
                        Failing.UNAUTHORIZED,
                        Failing.FORBIDDEN,
                        Failing.NOT_FOUND);
        answers.put("304", map("description", "What you have is still right."));
        putHeaders(answers, "200", false);
        operation.put("responses", answers);
        return operation;
    }

    /** Needed where the resource says so, so that no change is lost over another. */
    private Map<String, Object> ifMatch(ResourceType resource) {
        return parts.parameter(resource.versioned() ? "ifMatchNeeded" : "ifMatch");
    }

    private Map<String, Object> update(ResourceType resource) {
        var operation = operation(resource, "update", "Change " + article(resource), false);
        operation.put(
                "description",
                "A merge patch (RFC 7396): fields that are not named stay, null empties one. A list"
                    + " of line items replaces the list; an item that names its line, or stands in"
                    + " the same place, keeps what it does not name.");
        operation.put("parameters", List.of(ifMatch(resource), parts.parameter("idempotencyKey")));
        var input = schemas.input(typeName(resource, false) + "Update", resource, Operation.UPDATE);
        operation.put("requestBody", body(input, "application/merge-patch+json"));
        var answers =
                answers(
                        "200",
                        "It was changed.",
                        answerSchema(resource),
                        changing(
                                resource,
                                Failing.BAD_REQUEST,
                                Failing.UNAUTHORIZED,
                                Failing.FORBIDDEN,
                                Failing.NOT_FOUND,
                                Failing.CONFLICT,
                                Failing.INVALID));
        putHeaders(answers, "200", false);
        operation.put("responses", answers);
        return operation;
    }

    private Map<String, Object> save(ResourceType resource) {
        var operation =
                operation(
                        resource,
                        "save",
                        "Create or change " + article(resource) + " by its key",
                        false);
        operation.put(
                "parameters",
                List.of(parts.parameter("ifMatch"), parts.parameter("idempotencyKey")));
        var input = schemas.saved(typeName(resource, false) + "Save", resource);
        operation.put("requestBody", body(input, "application/json"));
        var answers =
                answers(
                        "200",
                        "It was there and was changed.",
                        answerSchema(resource),
                        changing(
                                resource,
                                Failing.BAD_REQUEST,
                                Failing.UNAUTHORIZED,
                                Failing.FORBIDDEN,
                                Failing.CONFLICT,
                                Failing.INVALID));
        answers.put("201", content("It was created.", answerSchema(resource)));
        putHeaders(answers, "200", false);
        putHeaders(answers, "201", true);
        operation.put("responses", answers);
        return operation;
    }

    /** A transition, or a function on a record. */
    private Map<String, Object> call(ResourceType resource, CallType call) {
        var operation =
                operation(
                        resource,
                        call.name(),
                        switch (call) {
                            case CallType.OfTransition(var transition) ->
                                    "%s: take %s to %s"
                                            .formatted(
                                                    transition.label(),
                                                    article(resource),
                                                    transition.to());
                            case CallType.OfFunction(var function) ->
                                    "%s: call it on %s"
                                            .formatted(function.label(), article(resource));
                        },
                        false);
        operation.put("description", CallSchemas.described(call));
        operation.put("parameters", List.of(ifMatch(resource), parts.parameter("idempotencyKey")));
        var name = typeName(resource, false) + ResourceNames.joined(Names.address(call.name()));
        if (!call.parameters().entries().isEmpty()) {
            operation.put("requestBody", calls.arguments(name + "Arguments", call.parameters()));
        }
        var returns = call.returns();
        var answers =
                answers(
                        "200",
                        returns == null
                                ? "The record as it is now."
                                : "What it returns, and the record as it is now.",
                        returns == null
                                ? answerSchema(resource)
                                : calls.answer(name + "Result", returns, answerSchema(resource)),
                        changing(
                                resource,
                                Failing.BAD_REQUEST,
                                Failing.UNAUTHORIZED,
                                Failing.FORBIDDEN,
                                Failing.NOT_FOUND,
                                Failing.CONFLICT,
                                Failing.INVALID));
        putHeaders(answers, "200", false);
        operation.put("responses", answers);
        return operation;
    }

    /** A function of an object as a whole. */
    private Map<String, Object> function(ObjectFunctionType function) {
        var definition = function.definition();
        var name = ResourceNames.joined(Names.address(function.name()));
        var operation = new LinkedHashMap<String, Object>();
        operation.put("operationId", function.name());
        operation.put("tags", List.of(ServiceType.FUNCTIONS));
        operation.put("summary", definition.label());
        operation.put("description", CallSchemas.described(new CallType.OfFunction(definition)));
        operation.put("parameters", List.of(parts.parameter("idempotencyKey")));
        operation.put("requestBody", calls.arguments(name + "Arguments", definition.parameters()));
        var returns = definition.returns();
        var answers = new LinkedHashMap<String, Object>();
        answers.put(
                "200",
                content(
                        returns == null ? "It was done." : "What it returns.",
                        calls.answer(name + "Result", returns, null)));
        parts.fail(
                answers,
                Failing.BAD_REQUEST,
                Failing.UNAUTHORIZED,
                Failing.FORBIDDEN,
                Failing.CONFLICT,
                Failing.INVALID);
        operation.put("responses", answers);
        return operation;
    }

    private Map<String, Object> remove(ResourceType resource) {
        boolean deletes = resource.object().removal() == sandpiper.model.definition.Removal.DELETE;
        var operation =
                operation(
                        resource,
                        "remove",
                        (deletes ? "Delete " : "Retire ") + article(resource),
                        false);
        operation.put("parameters", List.of(ifMatch(resource)));
        var answers = new LinkedHashMap<String, Object>();
        answers.put("204", map("description", "It was done."));
        parts.fail(
                answers,
                changing(
                        resource,
                        Failing.UNAUTHORIZED,
                        Failing.FORBIDDEN,
                        Failing.NOT_FOUND,
                        Failing.CONFLICT));
        operation.put("responses", answers);
        return operation;
    }

    private Map<String, Object> batch(ResourceType resource) {
        var operation =
                operation(
                        resource,
                        "batch",
                        "Create and change many " + lower(resource.object().plural()),
                        true);
        operation.put(
                "description",
                "Each item is done or refused for itself, and has its result in the same place.");
        operation.put("requestBody", body(schemas.batchInput(), "application/json"));
        operation.put(
                "responses",
                answers(
                        "200",
                        "What became of each item.",
                        schemas.batchResult(),
                        Failing.BAD_REQUEST,
                        Failing.UNAUTHORIZED,
                        Failing.FORBIDDEN,
                        Failing.TOO_LARGE));
        return operation;
    }

    private static Map<String, Object> body(String schema, String type) {
        return map("required", true, "content", map(type, map("schema", ref(schema))));
    }

    private static Map<String, Object> ref(String schema) {
        return map("$ref", "#/components/schemas/" + schema);
    }

    private static Map<String, Object> content(String describe, String schema) {
        return map(
                "description",
                describe,
                "content",
                map("application/json", map("schema", ref(schema))));
    }

    private Map<String, Object> answers(
            String status, String describe, String schema, Failing... failures) {
        var answers = new LinkedHashMap<String, Object>();
        answers.put(status, content(describe, schema));
        parts.fail(answers, failures);
        return answers;
    }

    /** What can go wrong when a record that is there is changed. */
    private static Failing[] changing(ResourceType resource, Failing... others) {
        var failures = new ArrayList<>(List.of(others));
        failures.add(Failing.STALE);
        if (resource.versioned()) {
            failures.add(Failing.VERSION_NEEDED);
        }
        return failures.toArray(Failing[]::new);
    }

    @SuppressWarnings("unchecked") // made a few lines above
    private static void putHeaders(Map<String, Object> answers, String status, boolean location) {
        var headers = new LinkedHashMap<String, Object>();
        headers.put(
                "ETag",
                map(
                        "description",
                        "The record's version, for If-Match.",
                        "schema",
                        map("type", "string")));
        if (location) {
            headers.put(
                    "Location",
                    map(
                            "description",
                            "Where the record is read.",
                            "schema",
                            map("type", "string")));
        }
        var answer = (Map<String, Object>) java.util.Objects.requireNonNull(answers.get(status));
        answer.put("headers", headers);
    }

    /** A map in the order written: names and values in turn. */
    static Map<String, Object> map(Object... namesAndValues) {
        var map = new LinkedHashMap<String, Object>();
        for (int i = 0; i < namesAndValues.length; i += 2) {
            map.put((String) namesAndValues[i], namesAndValues[i + 1]);
        }
        return map;
    }
}
