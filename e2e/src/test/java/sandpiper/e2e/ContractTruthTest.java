package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

/**
 * A contract over REST is true: whatever is sent by it and against it is answered with a status it
 * names and a body of the schema it gives; what does not fit it is never taken. On packages that
 * are made up at random, with every type, keys of two fields, line items and references to
 * themselves.
 */
class ContractTruthTest {
    /** For each package; more are sent with {@code -Dsandpiper.truth=5000}. */
    private static final int REQUESTS = Integer.getInteger("sandpiper.truth", 400);

    private static final List<String> TYPES =
            List.of(
                    "text, length: 12",
                    "text, length: 9, localised: true",
                    "text, multiline: true, length: 200",
                    "integer",
                    "decimal, scale: 2",
                    "percent, scale: 1",
                    "amount, currency: EUR",
                    "amount, currency: JPY",
                    "amount, currency: record",
                    "boolean",
                    "date",
                    "time",
                    "date-time",
                    "duration",
                    "choice, choices: [red, '+', 'q w']",
                    "uuid",
                    "email",
                    "web-address");

    @TempDir static Path folder;

    private static final HttpClient HTTP = HttpClient.newHttpClient();
    private static ServiceProcess service;
    private static ManageClient manage;

    @BeforeAll
    static void start() throws Exception {
        service = ServiceProcess.start(folder.resolve("data.db"), Map.of());
        manage = service.client();
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3})
    @Timeout(180)
    void whateverIsSentIsAnsweredAsTheContractSays(long seed) throws Exception {
        var random = new Random(seed);
        var name = "truth" + seed;
        manage.draft().push(files(name, random));
        manage.draft().release(new sandpiper.client.DraftCalls.Wanted(name, true, true, true));
        var secret =
                manage.access()
                        .createClient(
                                new sandpiper.client.AccessCalls.NewClient(
                                        name, List.of(name + "/*/*"), false, 1_000_000, null))
                        .value()
                        .secret();
        var contract =
                ManageClient.read(
                        manage.draft()
                                .contract(
                                        new sandpiper.client.DraftCalls.Service(name, 1),
                                        "openapi.json"));

        var lies = new Exchange(contract, random, name + ":" + secret).run(REQUESTS);

        assertThat(lies).isEmpty();
    }

    /** One package with two objects and a service of all that there is. */
    private static Map<String, String> files(String name, Random random) {
        var fields = new StringBuilder();
        for (int i = 0; i < 12; i++) {
            var type = TYPES.get(random.nextInt(TYPES.size()));
            boolean required = random.nextInt(4) == 0;
            boolean standard = required && type.equals("integer");
            fields.append(
                    "  f%d: { type: %s%s%s }\n"
                            .formatted(
                                    i,
                                    type,
                                    required ? ", required: true" : "",
                                    standard ? ", default: 3" : ""));
        }
        var object =
                """
                object: %1$sSlot
                key: [row, number]
                fields:
                  row: { type: text, length: 8 }
                  number: { type: integer }
                  beside: { type: reference, to: %1$sSlot }
                %2$sparts:
                  posts:
                    fields:
                      height: { type: decimal, scale: 1, required: true, default: 1 }
                      note: { type: text, length: 20, localised: true }
                functions:
                  twice:
                    parameters: { n: { type: integer, required: true }, how: { type: choice, choices: [low, high] } }
                    returns: { type: integer }
                    on: object
                    external: true
                    body: |
                      return n * 2
                  lift:
                    parameters: { by: { type: decimal, scale: 1 } }
                    on: record
                    external: true
                    body: |
                      set this.beside = null
                """
                        .formatted(capital(name), fields);
        return Map.of(
                name + "/package.yaml",
                "package: %s\nversion: 1\nlanguages: [en, de]\n".formatted(name),
                name + "/objects/slot.yaml",
                object,
                name + "/services/desk.yaml",
                """
                service: %1$s
                version: 1
                protocols: [rest]
                functions: [%2$sSlot.twice]
                resources:
                  slots:
                    object: %2$sSlot
                    create: { fields: [all] }
                    update: { fields: [all] }
                    read: { fields: [all, beside.f0, beside.f1] }
                    query: { fields: [all], filter: [row, number, beside], sort: [number] }
                    remove: true
                    calls: [lift]
                """
                        .formatted(name, capital(name)));
    }

    private static String capital(String name) {
        return name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1);
    }

    /** Requests and answers of one service. */
    private static final class Exchange {
        private final JsonNode contract;
        private final Random random;
        private final String authorization;
        private final RandomBodies bodies;
        private final SchemaRegistry registry =
                SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12);
        private final Map<String, Schema> schemas = new HashMap<>();
        private final List<String> keys = new ArrayList<>(List.of("none,1", "%5C", "a%2Fb"));
        private final TreeSet<String> lies = new TreeSet<>();

        Exchange(JsonNode contract, Random random, String credentials) {
            this.contract = contract;
            this.random = random;
            this.bodies = new RandomBodies(contract.path("components").path("schemas"), random);
            this.authorization =
                    "Basic "
                            + Base64.getEncoder()
                                    .encodeToString(credentials.getBytes(StandardCharsets.UTF_8));
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
                body = bodies.of(wanted, random.nextInt(3) == 0 ? 6 : 0);
            }
            var path = operation.path().replace("{key}", keys.get(random.nextInt(keys.size())));
            var address = contract.path("servers").path(0).path("url").asString() + path;
            var request =
                    HttpRequest.newBuilder(URI.create(address))
                            .header("Authorization", authorization)
                            .method(
                                    operation.method(),
                                    type == null
                                            ? HttpRequest.BodyPublishers.noBody()
                                            : HttpRequest.BodyPublishers.ofString(
                                                    ManageClient.write(
                                                            body == null ? Map.of() : body)));
            if (type != null) {
                request.header("Content-Type", type);
            }
            if (random.nextInt(6) == 0) {
                request.header("If-Match", "\"" + random.nextInt(3) + "\"");
            }
            var answer = HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
            judge(operation, answer, wanted, body);
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
            if (!answer.body().isEmpty()) {
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
                    .ifPresent(location ->
                            keys.add(location.substring(location.lastIndexOf('/') + 1)));
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
                    .map(error -> error.getInstanceLocation() + " " + error.getMessage())
                    .limit(3)
                    .reduce("", (a, b) -> a + (a.isEmpty() ? "" : "; ") + b);
        }
    }
}
