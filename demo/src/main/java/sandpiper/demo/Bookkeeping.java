package sandpiper.demo;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import sandpiper.client.ManageClient;

/**
 * A small made-up bookkeeping system that hears of stays that ended and invoices that were issued.
 * It checks signatures as Standard Webhooks has it, books each event once, and can be told to be
 * slow, down or wrong, so that one can see what becomes of deliveries then.
 *
 * <p>{@code POST /events} takes events, {@code GET /ledger} shows what was booked, {@code PUT
 * /mode/down} changes how it behaves.
 */
public final class Bookkeeping implements AutoCloseable {
    private static final int SLOW_SECONDS = 30;
    private static final int LARGE_BYTES = 10_000_000;

    private final HttpServer server;
    private final Map<String, Object> ledger = new LinkedHashMap<>();
    private final List<Integer> answers = new ArrayList<>();
    private volatile String secret = "";
    private volatile Mode mode = Mode.WELL;

    /** How it behaves. */
    public enum Mode {
        WELL,
        /** Answers after half a minute. */
        SLOW,
        /** Answers 500. */
        DOWN,
        /** Answers 400. */
        WRONG,
        /** Answers with a redirect. */
        MOVED,
        /** Answers 200 with ten million bytes. */
        LARGE,
        /** Answers 410: it wants no more. */
        GONE
    }

    private Bookkeeping(HttpServer server) {
        this.server = server;
    }

    /** Starts it on the loopback address; {@code port} 0 for any that is free. */
    public static Bookkeeping start(int port) throws IOException {
        var server =
                HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        var bookkeeping = new Bookkeeping(server);
        server.createContext("/events", bookkeeping::take);
        server.createContext("/ledger", bookkeeping::show);
        server.createContext("/mode/", bookkeeping::change);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.start();
        return bookkeeping;
    }

    /** {@code host:port}, as an operator allows it. */
    public String place() {
        return "127.0.0.1:" + server.getAddress().getPort();
    }

    /** Where it takes events. */
    public String address() {
        return "http://" + place() + "/events";
    }

    /** The secret that messages must be signed with. */
    public void trust(String newSecret) {
        secret = newSecret;
    }

    /** Behaves otherwise from now on. */
    public void behave(Mode newMode) {
        mode = newMode;
    }

    /** What was booked, in the order in which it came: each event once. */
    public synchronized List<Object> ledger() {
        return List.copyOf(ledger.values());
    }

    /** The statuses it answered so far. */
    public synchronized List<Integer> answers() {
        return List.copyOf(answers);
    }

    private void take(HttpExchange exchange) throws IOException {
        var body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
        switch (mode) {
            case SLOW -> {
                LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(SLOW_SECONDS));
                answer(exchange, 200, "{}");
            }
            case DOWN -> answer(exchange, 500, "{\"message\": \"The books are closed.\"}");
            case WRONG -> answer(exchange, 400, "{\"message\": \"I do not know this event.\"}");
            case MOVED -> {
                exchange.getResponseHeaders().add("Location", "/elsewhere");
                answer(exchange, 302, "");
            }
            case LARGE -> answer(exchange, 200, "x".repeat(LARGE_BYTES));
            case GONE -> answer(exchange, 410, "");
            case WELL -> {
                if (isSigned(exchange, body)) {
                    book(header(exchange, "webhook-id"), body);
                    answer(exchange, 200, "{\"booked\": true}");
                } else {
                    answer(exchange, 401, "{\"message\": \"The signature is not right.\"}");
                }
            }
        }
    }

    private synchronized void book(String id, String body) {
        ledger.putIfAbsent(id, ManageClient.read(body));
    }

    private static String header(HttpExchange exchange, String name) {
        var value = exchange.getRequestHeaders().getFirst(name);
        return value == null ? "" : value;
    }

    private boolean isSigned(HttpExchange exchange, String body) {
        var content =
                "%s.%s.%s"
                        .formatted(
                                header(exchange, "webhook-id"),
                                header(exchange, "webhook-timestamp"),
                                body);
        var wanted = sign(content).getBytes(StandardCharsets.US_ASCII);
        for (var signature : header(exchange, "webhook-signature").split(" ")) {
            if (MessageDigest.isEqual(wanted, signature.getBytes(StandardCharsets.US_ASCII))) {
                return true;
            }
        }
        return false;
    }

    private String sign(String content) {
        var known = secret;
        if (known.isEmpty()) {
            return "";
        }
        try {
            var key = Base64.getDecoder().decode(known.substring("whsec_".length()));
            var mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(key, "HmacSHA256"));
            return "v1,"
                    + Base64.getEncoder()
                            .encodeToString(mac.doFinal(content.getBytes(StandardCharsets.UTF_8)));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    private void show(HttpExchange exchange) throws IOException {
        answer(exchange, 200, ManageClient.writePretty(ledger()));
    }

    private void change(HttpExchange exchange) throws IOException {
        var path = exchange.getRequestURI().getPath();
        var name = path.substring(path.lastIndexOf('/') + 1).toUpperCase(Locale.ROOT);
        for (var one : Mode.values()) {
            if (one.name().equals(name) && exchange.getRequestMethod().equals("PUT")) {
                behave(one);
                answer(exchange, 200, "{\"mode\": \"%s\"}".formatted(one));
                return;
            }
        }
        answer(
                exchange,
                400,
                "{\"message\": \"PUT /mode/ with well, slow, down, wrong, moved, large or"
                        + " gone.\"}");
    }

    private void answer(HttpExchange exchange, int status, String body) throws IOException {
        if (exchange.getRequestURI().getPath().equals("/events")) {
            synchronized (this) {
                answers.add(status);
            }
        }
        var bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", "application/json");
        exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
        try (var out = exchange.getResponseBody()) {
            if (bytes.length > 0) {
                out.write(bytes);
            }
        } catch (IOException _) {
            // The other side has heard enough.
        } finally {
            exchange.close();
        }
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
