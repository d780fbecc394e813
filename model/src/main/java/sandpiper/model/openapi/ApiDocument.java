package sandpiper.model.openapi;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** An OpenAPI document (3.0 or 3.1). Nothing it refers to elsewhere is fetched. Immutable. */
public final class ApiDocument {
    /** Where such documents are in a package's folder. */
    private static final Pattern PATH =
            Pattern.compile("[^/]+/connections/[^/]+\\.openapi\\.(json|yaml)");

    private static final List<String> METHODS = List.of("get", "put", "post", "delete", "patch");

    private final Map<String, Object> root;
    private final List<ApiOperation> operations = new ArrayList<>();

    private ApiDocument(Map<String, Object> root) {
        this.root = root;
        readOperations();
    }

    /** Whether a path of a definition file is that of such a document. */
    public static boolean isDocument(String path) {
        return PATH.matcher(path).matches();
    }

    /**
     * Reads a text in JSON or YAML.
     *
     * @throws ApiDocumentException that says what is wrong
     */
    public static ApiDocument read(String text) {
        var tree = DocumentTexts.read(text);
        if (!(tree.get("openapi") instanceof String version)
                || !version.matches("3\\.[01](\\..*)?")) {
            throw new ApiDocumentException(
                    tree.containsKey("swagger")
                            ? "This is a document of Swagger 2.0; bring in one of OpenAPI 3.0 or"
                                    + " 3.1."
                            : "This is not a document of OpenAPI 3.0 or 3.1: its first entry must"
                                    + " be \"openapi\": \"3.1.0\" or the like.");
        }
        return new ApiDocument(tree);
    }

    /** What it is called; empty when it does not say. */
    public String title() {
        return text(Trees.map(root.get("info")), "title");
    }

    /** Its own version; empty when it does not say. */
    public String version() {
        return text(Trees.map(root.get("info")), "version");
    }

    /** The first address it names for the service; empty for none. */
    public String address() {
        var servers = Trees.list(root.get("servers"));
        return servers.isEmpty() ? "" : text(Trees.map(servers.getFirst()), "url");
    }

    /** Everything it offers, in its own order. */
    public List<ApiOperation> operations() {
        return List.copyOf(operations);
    }

    /** The operation of a method and a path as the document writes it, or nothing. */
    public Optional<ApiOperation> operation(String method, String path) {
        return operations.stream()
                .filter(one -> one.method().equalsIgnoreCase(method) && one.path().equals(path))
                .findFirst();
    }

    /** What it says, as nested maps and lists. */
    Map<String, Object> root() {
        return root;
    }

    private static String text(Map<String, Object> map, String key) {
        return map.get(key) instanceof String text ? text : "";
    }

    private void readOperations() {
        Trees.map(root.get("paths"))
                .forEach((path, item) -> {
                    var inItem = Trees.map(Trees.resolved(root, item));
                    for (var method : METHODS) {
                        if (inItem.get(method) instanceof Map<?, ?> operation) {
                            operations.add(
                                    operation(
                                            method.toUpperCase(Locale.ROOT),
                                            path,
                                            Trees.list(inItem.get("parameters")),
                                            Trees.map(operation)));
                        }
                    }
                });
    }

    private ApiOperation operation(
            String method, String path, List<Object> shared, Map<String, Object> operation) {
        var parameters = new ArrayList<ApiParameter>();
        // What the operation says itself stands in for what its path says for all.
        for (var one : Trees.list(operation.get("parameters"))) {
            add(one, parameters);
        }
        for (var one : shared) {
            add(one, parameters);
        }
        var body = Trees.map(Trees.resolved(root, operation.get("requestBody")));
        var inBody = json(body.get("content"));
        if (inBody != null) {
            var shape = new JsonShape(root, inBody);
            shape.properties()
                    .forEach((name, of) ->
                            parameters.add(
                                    new ApiParameter(
                                            name,
                                            ApiParameter.Place.BODY,
                                            shape.required().contains(name),
                                            of)));
        }
        var summary = text(operation, "summary");
        return new ApiOperation(
                method,
                path,
                summary.isEmpty() ? text(operation, "description") : summary,
                parameters,
                answer(operation));
    }

    private void add(Object written, List<ApiParameter> parameters) {
        var parameter = Trees.map(Trees.resolved(root, written));
        var name = text(parameter, "name");
        var place = ApiParameter.Place.of(text(parameter, "in"));
        if (name.isEmpty() || place.isEmpty()) {
            return;
        }
        boolean there =
                parameters.stream()
                        .anyMatch(one -> one.name().equals(name) && one.place() == place.get());
        if (!there) {
            var schema = parameter.get("schema");
            parameters.add(
                    new ApiParameter(
                            name,
                            place.get(),
                            place.get() == ApiParameter.Place.PATH
                                    || Boolean.TRUE.equals(parameter.get("required")),
                            new JsonShape(
                                    root,
                                    schema == null ? json(parameter.get("content")) : schema)));
        }
    }

    /** What comes when all goes well, or {@code null} when it does not say. */
    private @Nullable JsonShape answer(Map<String, Object> operation) {
        var responses = Trees.map(operation.get("responses"));
        var good =
                responses.keySet().stream().filter(code -> code.startsWith("2")).sorted().toList();
        for (var code : good) {
            var schema = json(Trees.map(Trees.resolved(root, responses.get(code))).get("content"));
            if (schema != null) {
                return new JsonShape(root, schema);
            }
        }
        return null;
    }

    /** The schema of what is JSON among several contents. */
    private static @Nullable Object json(@Nullable Object content) {
        return Trees.map(content).entrySet().stream()
                .filter(one -> isJson(one.getKey()))
                .map(one -> Trees.map(one.getValue()).get("schema"))
                .filter(java.util.Objects::nonNull)
                .findFirst()
                .orElse(null);
    }

    private static boolean isJson(String mediaType) {
        var type = mediaType.toLowerCase(Locale.ROOT).split(";", 2)[0].strip();
        return type.equals("application/json") || type.endsWith("+json") || type.equals("*/*");
    }
}
