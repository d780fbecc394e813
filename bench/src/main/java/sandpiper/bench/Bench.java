package sandpiper.bench;

import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Locale;
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
 * many times as fast Sandpiper is. Both run in this process, on the same data, with the same
 * durability and the same load.
 */
public final class Bench {
    private static final int ROUNDS = 3;
    private static final String[] STATES = {"Requested", "Confirmed"};

    private final String sandpiper;
    private final String control;
    private final Duration time;
    private final StringBuilder table = new StringBuilder();

    private Bench(String sandpiper, String control, Duration time) {
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
            new Demo(new ManageClient(service.address(), Demo.ADMIN, Demo.PASSWORD), _ -> {})
                    .load();
            loadControl(hand.context().getBean(StayRepository.class));
            var bench =
                    new Bench(
                            service.address() + "/api/berth-desk/v1/stays",
                            hand.address() + "/stays",
                            time);
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

    private static String stay(int number) {
        return """
        {"vessel": "GH-%d", "berth": "%s-%02d", "arrival": "%s", "departure": "%s", "charges": [
         {"tariff": "POWER", "quantity": 12.5}, {"tariff": "ENV", "quantity": 1}, {"tariff": "SHOWER", "quantity": 3}]}\
        """
                .formatted(
                        101 + number % 120,
                        "NSEWMH".charAt(number % 6),
                        1 + number % 15,
                        LocalDate.of(2027, 1, 1).plusDays(number % 300),
                        LocalDate.of(2027, 1, 4).plusDays(number % 300));
    }

    private void run() throws Exception {
        table.append(
                "| work | connections | Sandpiper : control | Sandpiper a second | control a second"
                        + " | Sandpiper p99 ms | control p99 ms |\n");
        table.append("| --- | --- | --- | --- | --- | --- | --- |\n");
        measure(
                "create a stay with 3 charges and history",
                32,
                n -> Load.post(sandpiper, stay(n)),
                n -> Load.post(control, stay(n)));
        measure(
                "create a stay with 3 charges and history",
                1,
                n -> Load.post(sandpiper, stay(n)),
                n -> Load.post(control, stay(n)));
        measure(
                "read a stay by key, two references deep, with charges",
                32,
                n -> read(sandpiper, n, 401),
                n -> read(control, n, 1));
        measure(
                "query a page of 50 by state and pier",
                32,
                n ->
                        Load.get(
                                sandpiper
                                        + "?limit=50&filter="
                                        + ManageClient.escape(
                                                "state = \"%s\" and berth.pier = \"%s\""
                                                        .formatted(
                                                                STATES[0],
                                                                "NSEWMH".charAt(n % 6)))),
                n ->
                        Load.get(
                                control
                                        + "?limit=50&state=%s&pier=%s"
                                                .formatted(STATES[0], "NSEWMH".charAt(n % 6))));
    }

    private static HttpRequest read(String address, int number, int first) {
        return Load.get(address + "/ST-2026-%06d".formatted(first + number % 500));
    }

    /** Warms both up, then measures them in turns and takes the median of the ratios. */
    private void measure(
            String work,
            int connections,
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
                        "| %s | %d | %.1f (%.1f to %.1f) | %.0f | %.0f | %.1f | %.1f |%n",
                        work,
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

        How many times as fast Sandpiper is as a service written by hand for the same work (Spring Boot, jOOQ, SQLite;
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
