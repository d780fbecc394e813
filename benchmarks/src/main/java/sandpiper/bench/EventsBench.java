package sandpiper.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import sandpiper.bench.line.Report;
import sandpiper.bench.load.Load;
import sandpiper.bench.load.Measured;
import sandpiper.client.ManageClient;
import sandpiper.demo.Bookkeeping;
import sandpiper.demo.Demo;
import sandpiper.server.SandpiperServer;
import sandpiper.server.config.StartOptions;

/**
 * What events cost whoever writes: stays are created while nobody hears of them, while the event is
 * kept for a feed, and while three webhooks are told, in turns. Then a storm of events, and how
 * long it takes until a webhook has heard them all.
 */
public final class EventsBench {
    private static final int ROUNDS = 3;
    private static final int CONNECTIONS = 32;
    private static final int EVENTS_OF_A_CALL = 120;
    private static final List<String> HOOKS = List.of("first", "second", "third");
    private static final String SERVICE = "gullhaven/services/berth-desk.yaml";
    private static final String STORM =
            """
            object: Siren
            key: [code]
            fields: { code: { type: text, length: 10 } }
            functions:
              wail:
                on: object
                external: true
                body: |
                  for each vessel in find Vessel take %d
                    emit Wailed { vessel: vessel }
                  end
            """
                    .formatted(EVENTS_OF_A_CALL);

    private final ManageClient manage;
    private final List<Bookkeeping> receivers;
    private final Duration time;
    private final Calls rest;
    private final String server;
    private int first;

    private EventsBench(
            ManageClient manage, List<Bookkeeping> receivers, Duration time, String address) {
        this.manage = manage;
        this.receivers = receivers;
        this.time = time;
        server = address;
        rest = Calls.of(address).getFirst();
    }

    /** Takes the file to write, the seconds of one measurement, and how many events a storm has. */
    public static void main(String[] arguments) throws Exception {
        var out = Path.of(arguments[0]);
        var time = Duration.ofSeconds(Long.parseLong(arguments[1]));
        int storm = Integer.parseInt(arguments[2]);
        var folder = Files.createTempDirectory("sandpiper-bench");
        try (var one = Bookkeeping.start(0);
                var two = Bookkeeping.start(0);
                var three = Bookkeeping.start(0)) {
            System.setProperty(
                    "sandpiper.webhooks.allow",
                    String.join(",", one.place(), two.place(), three.place()));
            try (var service =
                    SandpiperServer.start(
                            new StartOptions(folder.resolve("sandpiper.db"), 0, Demo.PASSWORD))) {
                var manage = new ManageClient(service.address(), Demo.ADMIN, Demo.PASSWORD);
                new Demo(manage, _ -> {}).load();
                var bench =
                        new EventsBench(manage, List.of(one, two, three), time, service.address());
                var text = bench.writers() + bench.storm(storm);
                Files.writeString(out, text);
                System.out.print(text);
            }
        }
    }

    private String writers() throws Exception {
        for (int i = 0; i < HOOKS.size(); i++) {
            var receiver = receivers.get(i);
            var made =
                    manage.post(
                            "/manage/v1/webhooks",
                            Map.of(
                                    "name", HOOKS.get(i),
                                    "address", receiver.address(),
                                    "events", List.of("Stay.created")));
            receiver.trust(made.path("secret").asString());
        }
        hear(false);
        create();
        var quiet = new Measured[ROUNDS];
        var kept = new Measured[ROUNDS];
        var told = new Measured[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            hear(false);
            release("[StayBegan, StayEnded, Stay.confirm]");
            quiet[i] = create();
            release("[Stay.created, StayBegan, StayEnded, Stay.confirm]");
            kept[i] = create();
            hear(true);
            told[i] = create();
            drain();
        }
        return """
        # What events cost

        Stays with three charges created over REST on %d connections in one process with the service and whoever hears: while nobody hears of
        them, while the event is kept in the same transaction for a feed, and while three webhooks on this machine are called as well. Medians of %d
        rounds of %d seconds, in turns; the ratio is to the rounds in which nobody hears, its spread in brackets.

        Written by `./bench events` on %s: %d processors, Java %s.

        | who hears | ratio | creates a second | p99 ms |
        | --- | --- | --- | --- |
        %s%s%s
        """
                .formatted(
                        CONNECTIONS,
                        ROUNDS,
                        time.toSeconds(),
                        LocalDate.now(ZoneOffset.UTC),
                        Runtime.getRuntime().availableProcessors(),
                        Runtime.version().feature(),
                        row("nobody", quiet, quiet),
                        row("a feed: one outbox row", kept, quiet),
                        row("a feed and three webhooks", told, quiet));
    }

    private Measured create() throws Exception {
        int from = first;
        first += 1_000_000;
        return Load.on(server, CONNECTIONS).closed(time, n -> rest.create(from + n));
    }

    private static String row(String who, Measured[] results, Measured[] quiet) {
        var ratios = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            ratios[i] = results[i].perSecond() / quiet[i].perSecond();
        }
        return String.format(
                Locale.ROOT,
                "| %s | %.2f (%.2f to %.2f) | %.0f | %.1f |%n",
                who,
                Report.median(ratios),
                Arrays.stream(ratios).min().orElseThrow(),
                Arrays.stream(ratios).max().orElseThrow(),
                Report.median(Arrays.stream(results).mapToDouble(Measured::perSecond).toArray()),
                Report.median(Arrays.stream(results).mapToDouble(one -> one.millis(99)).toArray()));
    }

    /** Raises events by the thousand, while somebody else goes on creating stays. */
    private String storm(int events) throws Exception {
        hear(false);
        var files = new HashMap<String, String>();
        files.put(
                "gullhaven/events/Wailed.yaml",
                "event: Wailed\nfields: { vessel: { type: reference, to: Vessel } }\n");
        files.put("gullhaven/objects/Siren.yaml", STORM);
        files.forEach((path, text) ->
                manage.put("/manage/v1/draft/file", Map.of("path", path, "text", text)));
        manage.post("/manage/v1/releases", Map.of());
        manage.patch(
                "/manage/v1/webhooks/third",
                Map.of("events", List.of("Wailed"), "disabled", false),
                null);
        int before = receivers.getLast().ledger().size();

        long start = System.nanoTime();
        for (int raised = 0; raised < events; raised += EVENTS_OF_A_CALL) {
            manage.post("/manage/v1/functions/Siren/wail", Map.of());
        }
        double raising = seconds(start);
        var meanwhile = create();
        drain();
        double all = seconds(start);
        int heard = receivers.getLast().ledger().size() - before;
        return """

        A storm: %,d events raised in %.1f s by calls that raise %d each, and all %,d heard by a webhook, each once, %.1f s after the first
        (%.0f a second). While they were on their way, stays were created at %.0f a second, p99 %.1f ms.
        """
                .formatted(
                        events,
                        raising,
                        EVENTS_OF_A_CALL,
                        heard,
                        all,
                        heard / all,
                        meanwhile.perSecond(),
                        meanwhile.millis(99));
    }

    private static double seconds(long since) {
        return (System.nanoTime() - since) / 1e9;
    }

    private void hear(boolean heard) {
        for (var hook : HOOKS) {
            manage.patch("/manage/v1/webhooks/" + hook, Map.of("disabled", !heard), null);
        }
    }

    private void release(String events) {
        var path = "/manage/v1/draft";
        for (var file : manage.get(path).path("files")) {
            if (file.path("path").asString().equals(SERVICE)) {
                var text =
                        file.path("text")
                                .asString()
                                .replaceFirst("(?m)^events: .*$", "events: " + events);
                manage.put(path + "/file", Map.of("path", SERVICE, "text", text));
            }
        }
        manage.post("/manage/v1/releases", Map.of("acceptBreaks", true, "acceptFailing", true));
    }

    private void drain() throws InterruptedException {
        while (manage.get("/manage/v1/deliveries/counts").path("waiting").asLong() > 0) {
            Thread.sleep(200);
        }
    }
}
