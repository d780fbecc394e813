package sandpiper.cli;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

/**
 * Stands for a service on loopback: gives answers that were put in, and takes down what it was
 * asked. Commands find it, and who asks, by the file they are left to find.
 */
final class FakeService implements AutoCloseable {
    private final HttpServer server;
    private final Map<String, Answer> answers = new HashMap<>();
    private final List<Asked> asked = new ArrayList<>();
    private final String home = System.getProperty("user.home");

    private record Answer(int status, String body) {}

    /** A request as it came; {@code path} with its query. */
    record Asked(String method, String path, String body, Map<String, String> headers) {
        JsonNode json() {
            return ManageClient.read(body);
        }
    }

    /** What a command came to. */
    record Outcome(int code, String out) {
        List<String> lines() {
            return out.lines().map(String::strip).toList();
        }
    }

    FakeService(Path folder) {
        try {
            server =
                    HttpServer.create(
                            new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
            server.createContext("/", this::answer);
            server.start();
            var file = folder.resolve(".sandpiper").resolve("connection");
            Files.createDirectories(file.getParent());
            Files.writeString(
                    file,
                    "server=http://127.0.0.1:%d\nuser=ann\npassword=secret\n"
                            .formatted(server.getAddress().getPort()));
            Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        System.setProperty("user.home", folder.toString());
    }

    /** What is answered to a request, such as {@code GET /manage/v1/clients}. */
    FakeService answering(String request, String body) {
        return answering(request, 200, body);
    }

    FakeService answering(String request, int status, String body) {
        answers.put(request, new Answer(status, body));
        return this;
    }

    private void answer(HttpExchange exchange) throws IOException {
        var path = exchange.getRequestURI().toString();
        var headers = new HashMap<String, String>();
        exchange.getRequestHeaders()
                .forEach((name, values) -> headers.put(name, values.getFirst()));
        var body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
        synchronized (asked) {
            asked.add(new Asked(exchange.getRequestMethod(), path, body, headers));
        }
        var request = exchange.getRequestMethod() + " " + path;
        var answer =
                Optional.ofNullable(answers.get(request))
                        .or(() -> Optional.ofNullable(answers.get(request.split("\\?")[0])))
                        .orElse(
                                new Answer(
                                        404, "{\"detail\": \"Nothing answers at " + path + ".\"}"));
        var bytes = answer.body().getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(answer.status(), bytes.length == 0 ? -1 : bytes.length);
        try (var out = exchange.getResponseBody()) {
            out.write(bytes);
        }
    }

    /** Runs a command as the launcher does. */
    Outcome run(String... words) {
        var text = new StringWriter();
        int code = Main.run(new PrintWriter(text), words);
        return new Outcome(code, text.toString());
    }

    List<Asked> asked() {
        synchronized (asked) {
            return List.copyOf(asked);
        }
    }

    Asked last() {
        return asked().getLast();
    }

    @Override
    public void close() {
        System.setProperty("user.home", home);
        server.stop(0);
    }
}
