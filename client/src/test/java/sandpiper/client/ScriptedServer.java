package sandpiper.client;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** Stands for a service on loopback: answers what it was told to and takes down what was sent. */
final class ScriptedServer implements AutoCloseable {
    private final HttpServer server;
    private final List<Sent> sent = new ArrayList<>();
    private int status = 200;
    private String answer = "{}";

    /** A request as it came; {@code path} with its query, {@code ifMatch} "null" without one. */
    record Sent(String method, String path, String body, String ifMatch) {}

    ScriptedServer() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", this::handle);
        server.start();
    }

    ManageClient client(String password) {
        return new ManageClient(
                "http://127.0.0.1:" + server.getAddress().getPort(), "ann", password);
    }

    /** What is answered from now on. */
    void answers(int status, String answer) {
        this.status = status;
        this.answer = answer;
    }

    void answers(String answer) {
        answers(200, answer);
    }

    /** What was sent since this was asked last. */
    List<Sent> taken() {
        var taken = List.copyOf(sent);
        sent.clear();
        return taken;
    }

    private void handle(HttpExchange exchange) throws IOException {
        sent.add(
                new Sent(
                        exchange.getRequestMethod(),
                        exchange.getRequestURI().toString(),
                        new String(
                                exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8),
                        String.valueOf(exchange.getRequestHeaders().getFirst("If-Match"))));
        var bytes = answer.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
        try (var out = exchange.getResponseBody()) {
            out.write(bytes);
        }
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
