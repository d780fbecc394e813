package sandpiper.e2e;

import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

/** Makes, reads and changes entities of random values and holds each against the metadata. */
final class ODataTruth {
    /** The form of a value of each type; others are told by what JSON itself has. */
    private static final Map<String, String> FORMS =
            Map.of(
                    "Edm.Date", "\\d{4}-\\d{2}-\\d{2}",
                    "Edm.TimeOfDay", "\\d{2}:\\d{2}(:\\d{2}(\\.\\d+)?)?",
                    "Edm.DateTimeOffset", "\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}:\\d{2}(\\.\\d+)?Z",
                    "Edm.Duration", "-?P(\\d+D)?(T(\\d+H)?(\\d+M)?(\\d+(\\.\\d+)?S)?)?",
                    "Edm.Guid", "[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}");

    private final HttpClient http = HttpClient.newHttpClient();
    private final String root;
    private final JsonNode schema;
    private final String namespace;
    private final String authorization;
    private final TreeSet<String> lies = new TreeSet<>();
    private int taken;

    ODataTruth(String root, String metadata, String credentials) {
        this.root = root;
        var document = ManageClient.read(metadata);
        var container = document.path("$EntityContainer").asString();
        this.namespace = container.substring(0, container.lastIndexOf('.'));
        this.schema = document.path(namespace);
        this.authorization = BasicSignIn.as(credentials);
    }

    /** How many entities were looked at. */
    int taken() {
        return taken;
    }

    /**
     * What was answered otherwise than the metadata have it; {@code contract} is that over REST.
     */
    TreeSet<String> run(JsonNode contract, RandomBodies bodies, Random random, int requests)
            throws Exception {
        var schemas = contract.path("components").path("schemas");
        var address = "slots";
        for (int i = 0; i < requests; i++) {
            int oneIn = random.nextInt(4) == 0 ? 8 : 0;
            switch (random.nextInt(5)) {
                case 0, 1 -> {
                    var made =
                            ask(
                                    "POST",
                                    "slots",
                                    entity(bodies.of(schemas.path("SlotCreate"), oneIn)));
                    address = made == null ? address : made;
                }
                case 2 ->
                        ask("PATCH", address, entity(bodies.of(schemas.path("SlotUpdate"), oneIn)));
                case 3 -> ask("GET", address + (address.contains("(") ? "?$expand=*" : ""), null);
                default ->
                        ask(
                                "GET",
                                "slots?$top=5&$count=true&$expand=posts&$filter="
                                        + encoded(
                                                "not (number gt %d)"
                                                        .formatted(random.nextInt(900))),
                                null);
            }
        }
        return lies;
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    /** A reference is written as the key of what it leads to. */
    private static Map<String, @Nullable Object> entity(@Nullable Object values) {
        var entity = new LinkedHashMap<String, @Nullable Object>();
        if (values instanceof Map<?, ?> map) {
            map.forEach((name, value) ->
                    entity.put("beside".equals(name) ? "besideKey" : String.valueOf(name), value));
        }
        return entity;
    }

    /** Gives the address of what was made. */
    private @Nullable String ask(String method, String path, @Nullable Object body)
            throws Exception {
        var request =
                HttpRequest.newBuilder(URI.create(root + "/" + path))
                        .header("Authorization", authorization)
                        .header("Content-Type", "application/json")
                        .method(
                                method,
                                body == null
                                        ? HttpRequest.BodyPublishers.noBody()
                                        : HttpRequest.BodyPublishers.ofString(
                                                ManageClient.write(body)))
                        .build();
        var answer = http.send(request, HttpResponse.BodyHandlers.ofString());
        var what = method + " " + path + " " + (body == null ? "" : ManageClient.write(body));
        if (answer.statusCode() >= 500 && answer.statusCode() != 501) {
            lies.add(what + " -> " + answer.body());
        }
        if (answer.body().isEmpty()) {
            return null;
        }
        var said = ManageClient.read(answer.body());
        if (answer.statusCode() >= 400) {
            if (said.path("error").path("code").asString("").isEmpty()
                    || said.path("error").path("message").asString("").isEmpty()) {
                lies.add(what + " is no error: " + answer.body());
            }
            return null;
        }
        if (said.path("value").isArray()) {
            said.path("value").forEach(one -> look(what, "Slot", one));
        } else {
            look(what, "Slot", said);
        }
        return answer.headers()
                .firstValue("Location")
                .map(location -> location.substring(root.length() + 1))
                .orElse(null);
    }

    private void look(String what, String type, JsonNode entity) {
        taken++;
        var declared = schema.path(type);
        for (var member : entity.properties()) {
            if (member.getKey().contains("@")) {
                continue;
            }
            var property = declared.path(member.getKey());
            var wrong = wrong(what, property, member.getValue());
            if (!wrong.isEmpty()) {
                lies.add("%s: %s.%s %s: %s".formatted(what, type, member.getKey(), wrong, entity));
            }
        }
    }

    private String wrong(String what, JsonNode property, JsonNode value) {
        if (property.isMissingNode()) {
            return "is in no metadata";
        }
        if (value.isNull()) {
            return property.path("$Nullable").asBoolean(false) ? "" : "may not be null";
        }
        var type = property.path("$Type").asString("Edm.String");
        if (type.startsWith(namespace + ".")) {
            var inside = type.substring(namespace.length() + 1);
            if (property.path("$Collection").asBoolean(false)) {
                value.forEach(one -> look(what, inside, one));
                return value.isArray() ? "" : "must be a list";
            }
            look(what, inside, value);
            return value.isObject() ? "" : "must be an object";
        }
        return switch (type) {
            case "Edm.Boolean" -> value.isBoolean() ? "" : "must be true or false";
            case "Edm.Int64", "Edm.Decimal" -> number(property, type, value);
            case "Edm.String" -> {
                int most = property.path("$MaxLength").asInt(Integer.MAX_VALUE);
                var text = value.asString("");
                yield value.isString() && text.codePointCount(0, text.length()) <= most
                        ? ""
                        : "must be a text of up to " + most;
            }
            default -> {
                var form = FORMS.get(type);
                yield form == null
                        ? "is of a type that nobody knows: " + type
                        : value.asString("").matches(form) ? "" : "must look like " + form;
            }
        };
    }

    private static String number(JsonNode property, String type, JsonNode value) {
        if (!value.isNumber()) {
            return "must be a number";
        }
        int most = type.equals("Edm.Int64") ? 0 : property.path("$Scale").asInt(0);
        return List.of(value.decimalValue().stripTrailingZeros().scale()).getFirst() <= most
                ? ""
                : "may have %d digits behind the point".formatted(most);
    }
}
