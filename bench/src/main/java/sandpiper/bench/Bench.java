package sandpiper.bench;

import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.IntFunction;
import sandpiper.bench.control.ControlService;
import sandpiper.bench.control.StayRepository;
import sandpiper.client.ManageClient;
import sandpiper.demo.Demo;
import sandpiper.demo.DemoData;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.Settings;

/**
 * Creates, reads and queries stays in Sandpiper and in the control, in turns, and writes down how
 * many times as fast Sandpiper is in each of its protocols as the control is over REST. Both run in
 * this process, on the same data, with the same durability and the same load.
 */
public final class Bench {
    private static final int ROUNDS = 3;

    private final List<Calls> sandpiper;
    private final String control;
    private final Duration time;
    private final StringBuilder table = new StringBuilder();

    private Bench(List<Calls> sandpiper, String control, Duration time) {
        this.sandpiper = sandpiper;
        this.control = control;
        this.time = time;
    }

    /** Takes the file to write, and the seconds of one measurement. */
    public static void main(String[] arguments) throws Exception {
        var out = Path.of(arguments[0]);
        var time = Duration.ofSeconds(Long.parseLong(arguments[1]));
        var folder = Files.createTempDirectory("sandpiper-bench");
        try (var service =
                        SandpiperServer.start(
                                new Settings(folder.resolve("sandpiper.db"), 0, Demo.PASSWORD));
                var hand = ControlService.start(folder.resolve("control.db"))) {
            var manage = new ManageClient(service.address(), Demo.ADMIN, Demo.PASSWORD);
            new Demo(manage, _ -> {}).load();
            speakEverything(manage);
            loadControl(hand.context().getBean(StayRepository.class));
            var bench = new Bench(Calls.of(service.address()), hand.address() + "/stays", time);
            bench.run();
            Files.writeString(out, bench.report());
            System.out.print(bench.table);
        }
    }

    private static void loadControl(StayRepository control) {
        var data = DemoData.records();
        var vessels = new ArrayList<String[]>();
        for (var vessel : Objects.requireNonNull(data.get("Vessel"))) {
            vessels.add(
                    new String[] {
                        text(vessel.get("registration")),
                        text(vessel.get("name")),
                        text(vessel.get("owner")),
                        "Owner " + vessel.get("owner")
                    });
        }
        var berths = new ArrayList<String[]>();
        for (var berth : Objects.requireNonNull(data.get("Berth"))) {
            berths.add(new String[] {text(berth.get("code")), text(berth.get("pier"))});
        }
        var tariffs =
                Objects.requireNonNull(data.get("Tariff")).stream()
                        .map(one -> text(one.get("code")))
                        .toList();
        control.load(vessels, berths, tariffs);
    }

    private static String text(@org.jspecify.annotations.Nullable Object value) {
        return String.valueOf(value);
    }

    /** Releases the berth desk over SOAP as well. */
    private static void speakEverything(ManageClient manage) {
        for (var file : manage.get("/manage/v1/draft").path("files")) {
            var path = file.path("path").asString();
            if (path.endsWith("/berth-desk.yaml")) {
                var text = file.path("text").asString();
                manage.put(
                        "/manage/v1/draft/file",
                        Map.of(
                                "path",
                                path,
                                "text",
                                text.replace("[rest, odata]", "[rest, soap, odata]")));
            }
        }
        manage.post("/manage/v1/releases", Map.of());
    }

    private void run() throws Exception {
        table.append(
                "| work | protocol | connections | Sandpiper : control | Sandpiper a second"
                        + " | control a second | Sandpiper p99 ms | control p99 ms |\n");
        table.append("| --- | --- | --- | --- | --- | --- | --- | --- |\n");
        var rest = sandpiper.getFirst();
        measure("create a stay with 3 charges and history", 1, rest, rest::create, this::create);
        for (var calls : sandpiper) {
            measure(
                    "create a stay with 3 charges and history",
                    32,
                    calls,
                    calls::create,
                    this::create);
        }
        for (var calls : sandpiper) {
            measure(
                    "read a stay by key, two references deep, with charges",
                    32,
                    calls,
                    calls::read,
                    n -> Load.get(control + "/ST-2026-%06d".formatted(1 + n % 500)));
        }
        for (var calls : sandpiper) {
            measure(
                    "query a page of 50 by state and pier",
                    32,
                    calls,
                    calls::query,
                    n ->
                            Load.get(
                                    control
                                            + "?limit=50&state=Requested&pier="
                                            + "NSEWMH".charAt(n % 6)));
        }
    }

    private HttpRequest create(int number) {
        return Load.post(control, Calls.Rest.body(number));
    }

    /** Warms both up, then measures them in turns and takes the median of the ratios. */
    private void measure(
            String work,
            int connections,
            Calls calls,
            IntFunction<HttpRequest> ours,
            IntFunction<HttpRequest> theirs)
            throws Exception {
        Load.run(connections, time, ours);
        Load.run(connections, time, theirs);
        var ratios = new double[ROUNDS];
        var our = new Load.Result[ROUNDS];
        var their = new Load.Result[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            our[i] = Load.run(connections, time, ours);
            their[i] = Load.run(connections, time, theirs);
            ratios[i] = our[i].perSecond() / their[i].perSecond();
        }
        table.append(
                String.format(
                        Locale.ROOT,
                        "| %s | %s | %d | %.1f (%.1f to %.1f) | %.0f | %.0f | %.1f | %.1f |%n",
                        work,
                        calls.protocol(),
                        connections,
                        Load.median(ratios),
                        java.util.Arrays.stream(ratios).min().orElseThrow(),
                        java.util.Arrays.stream(ratios).max().orElseThrow(),
                        Load.median(our[0].perSecond(), our[1].perSecond(), our[2].perSecond()),
                        Load.median(
                                their[0].perSecond(), their[1].perSecond(), their[2].perSecond()),
                        Load.median(our[0].p99Millis(), our[1].p99Millis(), our[2].p99Millis()),
                        Load.median(
                                their[0].p99Millis(), their[1].p99Millis(), their[2].p99Millis())));
    }

    private String report() {
        return """
        # Benchmarks

        How many times as fast Sandpiper is, in each protocol it speaks, as a service written by hand for the same work (REST; Spring Boot, jOOQ, SQLite;
        `bench/src/main/java/sandpiper/bench/control`), measured in turns in one process on one machine. Medians of %d
        rounds of %d seconds after one to warm up; the spread of the ratio in brackets. The load driver runs in the same
        process and takes its share of the processor, which brings both closer together than they are.

        Written by `./measure` on %s: %d processors, Java %s.

        %s\
        """
                .formatted(
                        ROUNDS,
                        time.toSeconds(),
                        LocalDate.now(java.time.ZoneOffset.UTC),
                        Runtime.getRuntime().availableProcessors(),
                        Runtime.version().feature(),
                        table);
    }
}
