package sandpiper.cli.service;

import static java.net.HttpURLConnection.HTTP_BAD_REQUEST;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import sandpiper.cli.Main;
import sandpiper.cli.common.Connection;
import sandpiper.client.ManageClient;
import sandpiper.demo.Demo;

/**
 * What the build does once with the demo it runs in the same folder, so that the JVM sees how
 * commands and a busy service go and keeps that for later starts.
 */
public final class Rehearsal {
    private static final List<List<String>> COMMANDS =
            List.of(
                    List.of("--help"),
                    List.of("status"),
                    List.of("records", "find", "Berth", "--filter", "pier = \"N\""),
                    List.of("records", "show", "Stay", "ST-2026-000001"),
                    List.of("records", "export", "Tariff"),
                    List.of("clients", "list"),
                    List.of("contract", "berth-desk"),
                    List.of("pull", "packages"),
                    List.of("check", "packages"),
                    List.of("eval", "1 + 1"));

    private static final Duration BUSY = Duration.ofSeconds(8);
    private static final int CALLERS = 4;

    private final HttpClient http = HttpClient.newHttpClient();
    private final String server;

    private Rehearsal(String server) {
        this.server = server;
    }

    /** Takes no arguments. */
    public static void main(String[] arguments) throws Exception {
        for (var command : COMMANDS) {
            var words = command.toArray(String[]::new);
            if (Main.commandLine(words).execute(words) != 0) {
                throw new IllegalStateException("This did not work: " + command);
            }
        }
        new Rehearsal(new Connection().open().server()).keepBusy();
    }

    private void keepBusy() throws Exception {
        var stays = "/api/berth-desk/v1/stays";
        var filter = ManageClient.escape("state = \"Requested\" and berth.pier = \"N\"");
        var listed = ManageClient.read(call("GET", stays + "?filter=" + filter, ""));
        var key = listed.get("items").get(0).get("number").asString();
        var one = ManageClient.read(call("GET", stays + "/" + key, ""));
        var created =
                """
                {"vessel": %s, "berth": %s, "arrival": %s, "departure": %s, "charges": [{"tariff": "POWER", "quantity": 12.5}]}\
                """
                        .formatted(
                                one.get("vessel").get("key"),
                                one.get("berth").get("key"),
                                one.get("arrival"),
                                one.get("departure"));
        long end = System.nanoTime() + BUSY.toNanos();
        Callable<Boolean> caller =
                () -> {
                    while (System.nanoTime() < end) {
                        call("POST", stays, created);
                        call("GET", stays + "/" + key, "");
                        call("GET", stays + "?filter=" + filter, "");
                        call("GET", "/odata/berth-desk/v1/stays('" + key + "')", "");
                    }
                    return true;
                };
        try (var callers = Executors.newVirtualThreadPerTaskExecutor()) {
            for (var done : callers.invokeAll(Collections.nCopies(CALLERS, caller))) {
                done.get();
            }
        }
    }

    private String call(String method, String path, String body)
            throws IOException, InterruptedException {
        var secret = "booking-site:" + Demo.BOOKING_SECRET;
        var request =
                HttpRequest.newBuilder(URI.create(server + path))
                        .header(
                                "Authorization",
                                "Basic "
                                        + Base64.getEncoder()
                                                .encodeToString(
                                                        secret.getBytes(StandardCharsets.UTF_8)))
                        .header("Content-Type", "application/json")
                        .method(method, HttpRequest.BodyPublishers.ofString(body))
                        .build();
        var answer = http.send(request, BodyHandlers.ofString());
        if (answer.statusCode() >= HTTP_BAD_REQUEST) {
            throw new IOException("%s %s: %s".formatted(method, path, answer.body()));
        }
        return answer.body();
    }
}
