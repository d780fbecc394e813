package sandpiper.e2e;

import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

/** Sends what a contract over REST allows and what it does not, and holds answers against it. */
final class RestTruth {
    private final JsonNode contract;
    private final Random random;
    private final String authorization;
    private final RandomBodies bodies;
    private final SchemaRegistry registry =
            SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12);
    private final Map<String, Schema> schemas = new HashMap<>();
    private final List<String> keys = new ArrayList<>(List.of("none,1", "%5C", "a%2Fb"));
    private final HttpClient http = HttpClient.newHttpClient();
    private final TreeSet<String> lies = new TreeSet<>();

    RestTruth(JsonNode contract, Random random, String credentials) {
        this.contract = contract;
        this.random = random;
        this.bodies = new RandomBodies(contract.path("components").path("schemas"), random);
        this.authorization = BasicSignIn.as(credentials);
    }

    private record Operation(String path, String method, JsonNode said) {}

    TreeSet<String> run(int requests) throws Exception {
        var operations = new ArrayList<Operation>();
        contract.path("paths")
                .properties()
                .forEach(path ->
                        path.getValue()
                                .properties()
                                .forEach(one -> {
                                    if (!one.getKey().equals("parameters")) {
                                        operations.add(
                                                new Operation(
                                                        path.getKey(),
                                                        one.getKey().toUpperCase(Locale.ROOT),
                                                        one.getValue()));
                                    }
                                }));
        for (int i = 0; i < requests; i++) {
            ask(operations.get(random.nextInt(operations.size())));
        }
        return lies;
    }

    private void ask(Operation operation) throws Exception {
        var content = operation.said().path("requestBody").path("content").properties();
        String type = null;
        JsonNode wanted = null;
        @Nullable Object body = null;
        for (var one : content) {
            type = one.getKey();
            wanted = one.getValue().path("schema");
            body = isJson(type) ? bodies.of(wanted, random.nextInt(3) == 0 ? 6 : 0) : null;
        }
        var path =
                operation
                        .path()
                        .replace("{key}", keys.get(random.nextInt(keys.size())))
                        .replace("{line}", String.valueOf(1 + random.nextInt(2)));
        var address = contract.path("servers").path(0).path("url").asString() + path;
        var request =
                HttpRequest.newBuilder(URI.create(address))
                        .header("Authorization", authorization)
                        .method(
                                operation.method(),
                                type == null
                                        ? HttpRequest.BodyPublishers.noBody()
                                        : HttpRequest.BodyPublishers.ofString(
                                                isJson(type)
                                                        ? ManageClient.write(
                                                                body == null ? Map.of() : body)
                                                        : random.nextBoolean() ? "Ahoy!" : ""));
        if (type != null) {
            // All of a kind stands for any of it.
            type = type.replace("/*", "/png");
            request.header("Content-Type", type);
        }
        if (random.nextInt(6) == 0) {
            request.header("If-Match", "\"" + random.nextInt(3) + "\"");
        }
        var answer = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        judge(operation, answer, wanted, body);
    }

    private static boolean isJson(@Nullable String type) {
        return type != null && type.endsWith("json");
    }

    private void judge(
            Operation operation,
            HttpResponse<String> answer,
            @Nullable JsonNode wanted,
            @Nullable Object body) {
        var what = operation.method() + " " + operation.path() + " -> " + answer.statusCode();
        var said = operation.said().path("responses").path(String.valueOf(answer.statusCode()));
        if (said.isMissingNode()) {
            lies.add(what + " is in no contract: " + answer.body());
            return;
        }
        if (said.has("$ref")) {
            var ref = said.path("$ref").asString();
            said =
                    contract.path("components")
                            .path("responses")
                            .path(ref.substring(ref.lastIndexOf('/') + 1));
        }
        if (answer.statusCode() >= 500) {
            lies.add(what + ": " + answer.body());
        }
        boolean good = answer.statusCode() < 400;
        var schema =
                said.path("content")
                        .path(good ? "application/json" : "application/problem+json")
                        .path("schema");
        if (good && !said.path("content").has("application/json") && !answer.body().isEmpty()) {
            // A file, of which the contract says no more than its type.
            var type = answer.headers().firstValue("Content-Type").orElse("");
            if (said.path("content").propertyNames().stream()
                    .noneMatch(range ->
                            MediaType.parseMediaType(range)
                                    .includes(MediaType.parseMediaType(type)))) {
                lies.add(what + " is " + type);
            }
        } else if (!answer.body().isEmpty()) {
            var wrong = wrong(schema, ManageClient.read(answer.body()));
            if (!wrong.isEmpty()) {
                lies.add(what + " " + wrong + " " + answer.body());
            }
        }
        if (good && wanted != null && body != null) {
            var wrong = wrong(wanted, ManageClient.read(ManageClient.write(body)));
            // Items of a batch are refused each for itself.
            boolean refused =
                    operation.path().endsWith(":batch")
                            && ManageClient.read(answer.body()).path("failed").asInt() > 0;
            if (!wrong.isEmpty() && !refused) {
                lies.add(what + " was taken though " + wrong + " " + ManageClient.write(body));
            }
        }
        answer.headers()
                .firstValue("Location")
                .filter(location -> location.contains("/slots/"))
                .ifPresent(location -> keys.add(location.substring(location.lastIndexOf('/') + 1)));
    }

    private String wrong(JsonNode schema, JsonNode value) {
        var whole =
                schemas.computeIfAbsent(
                        schema.toString(),
                        text -> {
                            var document =
                                    (tools.jackson.databind.node.ObjectNode)
                                            ManageClient.read(text);
                            document.set("components", contract.path("components"));
                            return registry.getSchema(document);
                        });
        return whole.validate(value).stream()
                // A text alone is taken for one in several languages, for those who write by hand.
                .filter(error -> !error.getMessage().matches("string found, \\[?object.*"))
                .map(error -> error.getInstanceLocation() + " " + error.getMessage())
                .limit(3)
                .reduce("", (a, b) -> a + (a.isEmpty() ? "" : "; ") + b);
    }
}
