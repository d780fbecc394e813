package sandpiper.bench.line;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.zip.GZIPOutputStream;
import sandpiper.bench.Calls;
import sandpiper.bench.load.Load;
import sandpiper.bench.subject.Subject;

/** What the service needs to start, to be there, and to be looked at. */
public final class Footprint {
    private static final int TRIES = 5;
    private static final int CONNECTIONS = 32;
    private static final Path CONSOLE = Path.of("console/target/classes/sandpiper/console");

    private final Stand stand;

    public Footprint(Stand stand) {
        this.stand = stand;
    }

    /**
     * Measures it.
     *
     * @param demo a data file with the marina alone
     */
    public void run(Path demo) throws Exception {
        starting(demo);
        memory();
        console();
    }

    private void starting(Path demo) throws IOException, InterruptedException {
        var service = new double[TRIES];
        var help = new double[TRIES];
        for (int i = 0; i < TRIES; i++) {
            long start = System.nanoTime();
            try (var one = Subject.launched(demo)) {
                service[i] = (System.nanoTime() - start) / 1e9;
                one.processorTime();
            }
            start = System.nanoTime();
            new ProcessBuilder("./sandpiper", "--help")
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start()
                    .waitFor();
            help[i] = (System.nanoTime() - start) / 1e9;
        }
        seconds("start with the marina until it answers", "under 4 s", service);
        seconds("`sandpiper --help`", "under 0.4 s", help);
    }

    private void seconds(String work, String goal, double[] taken) {
        stand.report()
                .alone(
                        work,
                        goal,
                        String.format(
                                Locale.ROOT,
                                "%.2f s (%.2f to %.2f)",
                                Report.median(taken),
                                Arrays.stream(taken).min().orElseThrow(),
                                Arrays.stream(taken).max().orElseThrow()));
    }

    private void memory() throws IOException, ExecutionException, InterruptedException {
        long idle = stand.sandpiper().liveHeap();
        var rest = Calls.of(stand.sandpiper().address()).getFirst();
        long most = 0;
        try (var pool = Executors.newSingleThreadExecutor()) {
            var load =
                    pool.submit(() ->
                            Load.on(stand.sandpiper().address(), CONNECTIONS)
                                    .closed(
                                            Duration.ofSeconds(5),
                                            n ->
                                                    n % 5 == 0
                                                            ? rest.create(9_000_000 + n)
                                                            : rest.read(n)));
            while (!load.isDone()) {
                most = Math.max(most, stand.sandpiper().heap());
                Thread.sleep(200);
            }
            load.get();
        }
        stand.report()
                .alone(
                        "heap: alive when idle; most in use under load, what is not yet swept up"
                                + " included",
                        "under 100 MB, under 400 MB",
                        "%d MB; %d MB".formatted(idle, most));
    }

    private void console() throws IOException {
        long bytes = 0;
        var page = Files.readString(CONSOLE.resolve("index.html"));
        bytes += compressed(CONSOLE.resolve("index.html"));
        try (var files = Files.list(CONSOLE.resolve("assets"))) {
            for (var file : files.toList()) {
                if (page.contains(file.getFileName().toString())) {
                    bytes += compressed(file);
                }
            }
        }
        stand.report()
                .alone(
                        "first load of the console, compressed",
                        "under 400 KB",
                        "%d KB".formatted(bytes / 1024));
    }

    private static long compressed(Path file) throws IOException {
        var bytes = new java.io.ByteArrayOutputStream();
        try (var zipped = new GZIPOutputStream(bytes)) {
            Files.copy(file, zipped);
        }
        return bytes.size();
    }
}
