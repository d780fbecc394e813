package sandpiper.demo;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.math.BigDecimal;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import org.jspecify.annotations.Nullable;
import sandpiper.client.ManageClient;

/**
 * A small made-up service of a harbour office with tides and exchange rates, all worked out from
 * their names and days. It wants a bearer token, and can be told to be slow, down or wrong.
 *
 * <p>{@code GET /currencies}, {@code /rates/USD?day=2026-05-01}, {@code /gauges?name=Gull}, {@code
 * /gauges/gull-head}, {@code /gauges/gull-head/tides?day=2026-05-01}; {@code PUT /mode/down}
 * changes how it behaves.
 */
public final class TideTable implements AutoCloseable {
    /** The token that callers must bring. */
    public static final String TOKEN = "ebb-and-flow";

    private static final int SLOW_SECONDS = 30;
    private static final int LARGE_BYTES = 10_000_000;
    private static final int MOST_GAUGES = 20;

    private static final Map<String, String> CURRENCIES =
            named(
                    "CHF", "Swiss franc",
                    "DKK", "Danish krone",
                    "EUR", "Euro",
                    "GBP", "Pound sterling",
                    "NOK", "Norwegian krone",
                    "PLN", "Polish zloty",
                    "SEK", "Swedish krona",
                    "USD", "US dollar");

    private static final Map<String, BigDecimal> USUAL_RATES =
            Map.of(
                    "CHF", new BigDecimal("0.95"),
                    "DKK", new BigDecimal("7.45"),
                    "EUR", BigDecimal.ONE,
                    "GBP", new BigDecimal("0.86"),
                    "NOK", new BigDecimal("11.60"),
                    "PLN", new BigDecimal("4.28"),
                    "SEK", new BigDecimal("11.30"),
                    "USD", new BigDecimal("1.09"));

    private static final Map<String, String> GAUGES =
            named(
                    "eider-mouth", "Eider Mouth",
                    "gull-head", "Gull Head",
                    "gullhaven-roads", "Gullhaven Roads",
                    "kelp-sound", "Kelp Sound",
                    "long-sand", "Long Sand",
                    "pilot-island", "Pilot Island",
                    "skerry-light", "Skerry Light",
                    "tern-bank", "Tern Bank");

    private final HttpServer server;
    private final AtomicInteger calls = new AtomicInteger();
    private volatile Mode mode = Mode.WELL;

    /** How it behaves. */
    public enum Mode {
        WELL,
        /** Answers after half a minute. */
        SLOW,
        /** Answers 503. */
        DOWN,
        /** Answers something else than its contract says. */
        WRONG,
        /** Answers with what is no JSON. */
        GARBLED,
        /** Answers with a redirect to another place. */
        MOVED,
        /** Answers with ten million bytes. */
        LARGE
    }

    private TideTable(HttpServer server) {
        this.server = server;
    }

    private static Map<String, String> named(String... codesAndNames) {
        var names = new LinkedHashMap<String, String>();
        for (int i = 0; i < codesAndNames.length; i += 2) {
            names.put(codesAndNames[i], codesAndNames[i + 1]);
        }
        return names;
    }

    /** Starts it on the loopback address; {@code port} 0 for any that is free. */
    public static TideTable start(int port) throws IOException {
        var server =
                HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        var table = new TideTable(server);
        server.createContext("/", table::answer);
        server.createContext("/mode/", table::change);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.start();
        return table;
    }

    /** {@code host:port}, as an operator allows it. */
    public String place() {
        return "127.0.0.1:" + server.getAddress().getPort();
    }

    /** Where it answers. */
    public String address() {
        return "http://" + place();
    }

    /** Behaves otherwise from now on. */
    public void behave(Mode newMode) {
        mode = newMode;
    }

    /** How often it was asked. */
    public int calls() {
        return calls.get();
    }

    private void answer(HttpExchange exchange) throws IOException {
        calls.incrementAndGet();
        switch (mode) {
            case SLOW -> {
                LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(SLOW_SECONDS));
                wellAnswered(exchange);
            }
            case DOWN -> send(exchange, 503, Map.of("message", "The gauges are being read."));
            case WRONG -> send(exchange, 200, Map.of("data", "high", "rate", "a lot"));
            case GARBLED -> send(exchange, 200, "text/html", "<html>High water</html>");
            case MOVED -> {
                exchange.getResponseHeaders().add("Location", "https://elsewhere.example/");
                send(exchange, 302, "text/plain", "moved");
            }
            case LARGE ->
                    send(exchange, 200, "application/json", '"' + "x".repeat(LARGE_BYTES) + '"');
            case WELL -> wellAnswered(exchange);
        }
    }

    private void wellAnswered(HttpExchange exchange) throws IOException {
        var authorization = exchange.getRequestHeaders().getFirst("Authorization");
        if (!("Bearer " + TOKEN).equals(authorization)) {
            exchange.getResponseHeaders().add("WWW-Authenticate", "Bearer");
            send(exchange, 401, Map.of("message", "The token is not right."));
            return;
        }
        var steps = exchange.getRequestURI().getPath().substring(1).split("/", -1);
        var found = exchange.getRequestMethod().equals("GET") ? found(exchange, steps) : null;
        if (found == null) {
            send(exchange, 404, Map.of("message", "There is no such thing."));
        } else {
            send(exchange, 200, found);
        }
    }

    private static @Nullable Object found(HttpExchange exchange, String[] steps) {
        var day = day(query(exchange, "day"));
        return switch (steps[0] + " " + steps.length) {
            case "currencies 1" -> Map.of("data", entries(CURRENCIES, "code", ""));
            case "rates 2" ->
                    CURRENCIES.containsKey(steps[1]) && day != null ? rate(steps[1], day) : null;
            case "gauges 1" -> Map.of("data", entries(GAUGES, "id", query(exchange, "name")));
            case "gauges 2" ->
                    GAUGES.containsKey(steps[1])
                            ? Map.of("id", steps[1], "name", GAUGES.get(steps[1]))
                            : null;
            case "gauges 3" ->
                    GAUGES.containsKey(steps[1]) && steps[2].equals("tides") && day != null
                            ? tides(steps[1], day)
                            : null;
            default -> null;
        };
    }

    private static List<Map<String, String>> entries(
            Map<String, String> names, String key, String search) {
        var entries = new ArrayList<Map<String, String>>();
        names.forEach((code, name) -> {
            boolean fits =
                    name.toLowerCase(Locale.ROOT).contains(search.toLowerCase(Locale.ROOT))
                            || code.equals(search);
            if (fits && entries.size() < MOST_GAUGES) {
                entries.add(named(key, code, "name", name));
            }
        });
        return entries;
    }

    private static Map<String, Object> rate(String currency, LocalDate day) {
        var rate = new LinkedHashMap<String, Object>();
        rate.put("currency", currency);
        rate.put("day", day.toString());
        var usual = Objects.requireNonNull(USUAL_RATES.get(currency));
        // A few thousandths up and down, the same each time for a day.
        var moved =
                currency.equals("EUR")
                        ? BigDecimal.ZERO
                        : BigDecimal.valueOf(Math.floorMod(day.toEpochDay() * 37, 61) - 30L, 4);
        rate.put(
                "rate",
                usual.add(usual.multiply(moved)).setScale(4, java.math.RoundingMode.HALF_UP));
        return rate;
    }

    private static Map<String, Object> tides(String gauge, LocalDate day) {
        // High water comes some fifty minutes later each day.
        long minutes = Math.floorMod(day.toEpochDay() * 50 + gauge.hashCode(), 745L);
        var tides = new LinkedHashMap<String, Object>();
        tides.put("gauge", gauge);
        tides.put("first", highWater(day, minutes));
        tides.put("second", highWater(day, minutes + 745));
        return tides;
    }

    private static Map<String, Object> highWater(LocalDate day, long minutes) {
        var water = new LinkedHashMap<String, Object>();
        water.put(
                "at", day.atStartOfDay(ZoneOffset.UTC).plusMinutes(minutes).toInstant().toString());
        water.put("height", BigDecimal.valueOf(280 + Math.floorMod(minutes, 90L), 2));
        return water;
    }

    private static @Nullable LocalDate day(String text) {
        try {
            return text.isEmpty() ? null : LocalDate.parse(text);
        } catch (DateTimeException _) {
            return null;
        }
    }

    private static String query(HttpExchange exchange, String name) {
        var query = exchange.getRequestURI().getRawQuery();
        for (var one : query == null ? new String[0] : query.split("&", -1)) {
            if (one.startsWith(name + "=")) {
                return URLDecoder.decode(one.substring(name.length() + 1), StandardCharsets.UTF_8);
            }
        }
        return "";
    }

    private void change(HttpExchange exchange) throws IOException {
        var path = exchange.getRequestURI().getPath();
        var name = path.substring(path.lastIndexOf('/') + 1).toUpperCase(Locale.ROOT);
        for (var one : Mode.values()) {
            if (one.name().equals(name) && exchange.getRequestMethod().equals("PUT")) {
                behave(one);
                send(exchange, 200, Map.of("mode", one.name()));
                return;
            }
        }
        send(
                exchange,
                400,
                Map.of(
                        "message",
                        "PUT /mode/ with well, slow, down, wrong, garbled, moved or large."));
    }

    private static void send(HttpExchange exchange, int status, Object body) throws IOException {
        send(exchange, status, "application/json", ManageClient.writePretty(body));
    }

    private static void send(HttpExchange exchange, int status, String type, String body)
            throws IOException {
        var bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", type);
        exchange.sendResponseHeaders(status, bytes.length);
        try (var out = exchange.getResponseBody()) {
            out.write(bytes);
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
