package sandpiper.client;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JavaType;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Calls the manage API of one instance as one person. Safe to share between threads. */
public final class ManageClient {
    /** By which the service tells the command line from the console. */
    private static final String AGENT = "sandpiper-cli";

    private static final Duration CONNECT = Duration.ofSeconds(5);
    private static final Duration ANSWER = Duration.ofMinutes(2);
    private static final Duration DOWNLOAD = Duration.ofHours(2);

    private static final JsonMapper JSON =
            JsonMapper.builder(
                            JsonFactory.builder()
                                    .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                                    .build())
                    .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
                    // A service of another version may say less, or more.
                    .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                    .withConfigOverride(
                            List.class,
                            list ->
                                    list.setNullHandling(
                                            JsonSetter.Value.forValueNulls(Nulls.AS_EMPTY)))
                    .build();

    private final HttpClient http =
            HttpClient.newBuilder()
                    .version(HttpClient.Version.HTTP_1_1)
                    .connectTimeout(CONNECT)
                    .build();
    private final String server;
    private final String authorization;

    /**
     * Calls a server, whose address has no slash at the end, with the name and password of a
     * person.
     */
    public ManageClient(String server, String user, String password) {
        this.server = server;
        this.authorization =
                "Basic "
                        + Base64.getEncoder()
                                .encodeToString(
                                        (user + ":" + password).getBytes(StandardCharsets.UTF_8));
    }

    /** Turns plain values or JSON nodes into JSON text. */
    public static String write(Object value) {
        return JSON.writeValueAsString(value);
    }

    /** The same with line breaks. */
    public static String writePretty(Object value) {
        return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(value);
    }

    /** Reads JSON text; fails with a {@link JacksonException} when it is none. */
    public static JsonNode read(String text) {
        return JSON.readTree(text);
    }

    /** The members of a JSON object; fails with a {@link JacksonException} when it is none. */
    public static Map<String, Object> members(String text) {
        return JSON.readValue(text, new TypeReference<LinkedHashMap<String, Object>>() {});
    }

    /** A part of a path or query, with everything escaped that has a meaning there. */
    public static String escape(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    /** Where the server is. */
    public String server() {
        return server;
    }

    /** Clients, users and roles. */
    public AccessCalls access() {
        return new AccessCalls(this);
    }

    /** Definitions and releases. */
    public DraftCalls draft() {
        return new DraftCalls(this);
    }

    /** What the service does and has done. */
    public ActivityCalls activity() {
        return new ActivityCalls(this);
    }

    /** Addresses that are told of events. */
    public WebhookCalls webhooks() {
        return new WebhookCalls(this);
    }

    /** Outside services whose codes and answers are used. */
    public ConnectionCalls connections() {
        return new ConnectionCalls(this);
    }

    /** Records and functions. */
    public RecordCalls records() {
        return new RecordCalls(this);
    }

    <T> Answer<T> read(String path, Class<T> type) {
        return typed(get(path), type);
    }

    <T> Answer<List<T>> list(String path, Class<T> type) {
        return typed(get(path), JSON.getTypeFactory().constructCollectionType(List.class, type));
    }

    <T> Answer<T> send(String method, String path, Object body, Class<T> type) {
        return typed(read(call(method, path, write(body), null)), type);
    }

    static <T> Answer<T> typed(JsonNode json, Class<T> type) {
        return typed(json, JSON.constructType(type));
    }

    private static <T> Answer<T> typed(JsonNode json, JavaType type) {
        try {
            return new Answer<>(JSON.treeToValue(json, type), json);
        } catch (JacksonException e) {
            throw new RefusedException(
                    0,
                    "The service answers in a way this command line does not understand; are both"
                            + " of one version? (%s)".formatted(e.getOriginalMessage()),
                    List.of());
        }
    }

    /** What is at a path of the manage API, for what has no method of its own. */
    public JsonNode get(String path) {
        return read(call("GET", path, null, null));
    }

    /** The text of an answer that is not to be read. */
    public String text(String path) {
        return call("GET", path, null, null);
    }

    /** The bytes of an answer. */
    byte[] bytes(String path) {
        return answered(request("GET", path, null));
    }

    /** Writes what is at a path to a file, however long that takes. */
    public void download(String path, Path to) {
        var request = request("GET", path, null).timeout(DOWNLOAD).build();
        try {
            var answer = http.send(request, HttpResponse.BodyHandlers.ofInputStream());
            try (var body = answer.body()) {
                if (answer.statusCode() >= 300) {
                    throw refused(
                            answer.statusCode(),
                            new String(body.readAllBytes(), StandardCharsets.UTF_8));
                }
                Files.copy(body, to, StandardCopyOption.REPLACE_EXISTING);
            }
        } catch (IOException e) {
            throw new RefusedException(
                    0, "%s could not be fetched: %s".formatted(path, e.getMessage()), List.of());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new RefusedException(0, "Interrupted.", List.of());
        }
    }

    /** Sends a file of a media type, and reads what is answered. */
    <T> Answer<T> upload(String path, String mediaType, byte[] content, Class<T> type) {
        var request =
                request("POST", path, null)
                        .setHeader("Content-Type", mediaType)
                        .POST(HttpRequest.BodyPublishers.ofByteArray(content));
        return typed(read(answer(request)), type);
    }

    public JsonNode post(String path, Object body) {
        return read(call("POST", path, write(body), null));
    }

    public JsonNode put(String path, Object body) {
        return read(call("PUT", path, write(body), null));
    }

    /** Changes a record, provided it still has a version when one is given. */
    public JsonNode patch(String path, Object body, @Nullable Long version) {
        return read(call("PATCH", path, write(body), version));
    }

    public void delete(String path) {
        delete(path, Map.of());
    }

    /** The same with further headers. */
    public void delete(String path, Map<String, String> headers) {
        call("DELETE", path, null, null, headers);
    }

    private String call(String method, String path, @Nullable String body, @Nullable Long version) {
        return call(method, path, body, version, Map.of());
    }

    private String call(
            String method,
            String path,
            @Nullable String body,
            @Nullable Long version,
            Map<String, String> headers) {
        var request = request(method, path, body);
        headers.forEach(request::header);
        if (version != null) {
            request.header("If-Match", "\"" + version + "\"");
        }
        return answer(request);
    }

    private String answer(HttpRequest.Builder request) {
        var text = new String(answered(request), StandardCharsets.UTF_8);
        return text.isEmpty() ? "null" : text;
    }

    private byte[] answered(HttpRequest.Builder request) {
        try {
            var answer = http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
            if (answer.statusCode() >= 300) {
                throw refused(
                        answer.statusCode(), new String(answer.body(), StandardCharsets.UTF_8));
            }
            return answer.body();
        } catch (IOException e) {
            throw new RefusedException(
                    0,
                    "No service answers at %s; start one with \"sandpiper serve\"."
                            .formatted(server),
                    List.of());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new RefusedException(0, "Interrupted.", List.of());
        }
    }

    private HttpRequest.Builder request(String method, String path, @Nullable String body) {
        return HttpRequest.newBuilder(URI.create(server + path))
                .timeout(ANSWER)
                .header("User-Agent", AGENT)
                .header("Authorization", authorization)
                .header("Content-Type", "application/json")
                .method(
                        method,
                        body == null
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofString(body));
    }

    private static RefusedException refused(int status, String body) {
        try {
            var problem = read(body);
            var errors = new ArrayList<String>();
            for (var error : problem.path("errors")) {
                var pointer = error.path("pointer").asString("");
                errors.add(
                        pointer.isEmpty()
                                ? error.path("message").asString("")
                                : pointer.substring(1) + ": " + error.path("message").asString(""));
            }
            return new RefusedException(status, problem.path("detail").asString(""), errors);
        } catch (JacksonException e) {
            return new RefusedException(
                    status, "The server answered %d.".formatted(status), List.of());
        }
    }
}
