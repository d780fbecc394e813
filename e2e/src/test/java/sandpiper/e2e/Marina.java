package sandpiper.e2e;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import sandpiper.client.ManageClient;
import sandpiper.demo.Bookkeeping;
import sandpiper.demo.Demo;
import sandpiper.demo.TideTable;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.StartOptions;
import tools.jackson.databind.JsonNode;

/**
 * The real service with the demo's data, started once on a free port of the loopback address and
 * shared by all journeys.
 */
final class Marina implements BeforeAllCallback {
    static final String BOOKING = "booking-site:" + Demo.BOOKING_SECRET;
    static final String CONSULTANT = "consultant:" + Demo.PASSWORD;
    static final String CLERK = "clerk:" + Demo.PASSWORD;

    private static final HttpClient HTTP =
            HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();
    private static SandpiperServer.Running running;
    private static Bookkeeping bookkeeping;
    private static TideTable tides;

    @Override
    public void beforeAll(ExtensionContext context) {
        start();
    }

    static synchronized void start() {
        if (running != null) {
            return;
        }
        try {
            var folder = Files.createTempDirectory("sandpiper-e2e");
            // As an operator would configure it.
            System.setProperty("sandpiper.cors.origins", "https://booking.example");
            bookkeeping = Bookkeeping.start(0);
            System.setProperty("sandpiper.webhooks.allow", bookkeeping.place());
            tides = TideTable.start(0);
            System.setProperty("sandpiper.connections.allow", tides.place());
            System.setProperty("sandpiper.connections.timeout", "PT2S");
            System.setProperty("sandpiper.webhooks.timeout", "PT2S");
            System.setProperty("sandpiper.webhooks.retries", "PT0.2S,PT0.3S,PT0.5S");
            var data = folder.resolve("data.db");
            System.setProperty("sandpiper.key-file", JourneyData.key(data));
            running =
                    SandpiperServer.start(
                            new StartOptions(JourneyData.of(data), 0, Demo.PASSWORD, null));
            // Other services of these tests have keys of their own.
            System.clearProperty("sandpiper.key-file");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        var demo =
                new Demo(new ManageClient(running.address(), Demo.ADMIN, Demo.PASSWORD), _ -> {});
        demo.load();
        demo.connect(bookkeeping);
        demo.connect(tides);
    }

    /** Stops the service, if it was started; for the end of the process. */
    static synchronized void stop() {
        if (running != null) {
            running.close();
        }
    }

    /** The made-up service of the harbour office that gives tides and rates. */
    static TideTable tides() {
        return tides;
    }

    /** The made-up bookkeeping system that hears of stays and invoices. */
    static Bookkeeping bookkeeping() {
        return bookkeeping;
    }

    /** The parts of the running service, for tests that look at what there is. */
    static org.springframework.context.ApplicationContext context() {
        return running.context();
    }

    static String address() {
        return running.address();
    }

    /** An answer with its body as text and, where it is one, as JSON. */
    record Answer(int status, HttpResponse<String> whole) {
        JsonNode json() {
            return ManageClient.read(whole.body());
        }

        String header(String name) {
            return whole.headers().firstValue(name).orElse("");
        }
    }

    static Answer call(String who, String method, String path, String body, String... headers) {
        return call(who, method, path, body.getBytes(StandardCharsets.UTF_8), headers);
    }

    static Answer call(String who, String method, String path, byte[] body, String... headers) {
        var request =
                HttpRequest.newBuilder(URI.create(address() + path))
                        .timeout(Duration.ofSeconds(60))
                        .method(method, HttpRequest.BodyPublishers.ofByteArray(body))
                        .header("Content-Type", "application/json");
        if (!who.isEmpty()) {
            request.header("Authorization", BasicSignIn.as(who));
        }
        for (int i = 0; i < headers.length; i += 2) {
            request.setHeader(headers[i], headers[i + 1]);
        }
        try {
            var answer = HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
            return new Answer(answer.statusCode(), answer);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    static Answer get(String who, String path) {
        return call(who, "GET", path, "");
    }

    static Path repository() {
        return Path.of("..").toAbsolutePath().normalize();
    }
}
