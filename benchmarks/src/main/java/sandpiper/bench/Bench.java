package sandpiper.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import sandpiper.bench.data.ControlData;
import sandpiper.bench.data.SandpiperData;
import sandpiper.bench.line.Bare;
import sandpiper.bench.line.Footprint;
import sandpiper.bench.line.Importing;
import sandpiper.bench.line.Mixed;
import sandpiper.bench.line.Parents;
import sandpiper.bench.line.Rehearsing;
import sandpiper.bench.line.Releasing;
import sandpiper.bench.line.Report;
import sandpiper.bench.line.Requests;
import sandpiper.bench.line.Stand;
import sandpiper.bench.line.Totals;
import sandpiper.bench.subject.Subject;

/**
 * Measures Sandpiper against the service written by hand for the same work, in turns on one
 * machine, each in a process of its own on its own file with the same records.
 */
public final class Bench {
    private final Scale scale;
    private final Path folder;
    private final Report report = new Report();

    /**
     * How much is measured.
     *
     * @param time of one round
     * @param stays besides the marina's own
     * @param whole whether protocols other than REST are measured as well
     */
    private record Scale(
            String command, Duration time, int rounds, int stays, int imported, boolean whole) {
        static Scale of(String name) {
            return switch (name) {
                case "quick" ->
                        new Scale(
                                "./bench quick", Duration.ofSeconds(3), 3, 100_000, 20_000, false);
                case "all" ->
                        new Scale("./bench", Duration.ofSeconds(5), 3, 1_000_000, 100_000, true);
                default -> throw new IllegalArgumentException("all or quick, not " + name);
            };
        }
    }

    private Bench(Scale scale, Path folder) {
        this.scale = scale;
        this.folder = folder;
    }

    /**
     * Takes the file to write, {@code all} or {@code quick}, and the work to do, or none for all.
     */
    public static void main(String[] arguments) throws Exception {
        var folder = Files.createTempDirectory(Path.of("benchmarks/target"), "run");
        var bench = new Bench(Scale.of(arguments[1]), folder);
        var only = List.of(arguments).subList(2, arguments.length);
        bench.run(only);
        if (only.isEmpty()) {
            Files.writeString(Path.of(arguments[0]), bench.text());
        }
        try (var files = Files.list(folder)) {
            for (var file : files.toList()) {
                Files.delete(file);
            }
        }
        Files.delete(folder);
    }

    private void run(List<String> only) throws Exception {
        var ours = folder.resolve("sandpiper.db");
        var theirs = folder.resolve("control.db");
        var demo = folder.resolve("demo.db");
        SandpiperData.make(demo);
        Files.copy(demo, ours);
        SandpiperData.multiply(ours, scale.stays());
        SandpiperData.inspect(ours, Totals.MANY, Totals.COUNT);
        ControlData.make(theirs, scale.stays());
        try (var stand =
                new Stand(
                        Subject.sandpiper(ours),
                        Subject.control(theirs),
                        folder,
                        scale.time(),
                        scale.rounds(),
                        report)) {
            // Every protocol takes long, so that in short it is measured only where it is named.
            boolean protocols = only.contains("protocols");
            if (isWanted(only, "requests") || protocols) {
                new Requests(stand, scale.whole() || protocols).run();
            }
            if (isWanted(only, "mixed")) {
                new Mixed(stand).run();
            }
            if (isWanted(only, "bare")) {
                new Bare(stand, ours).run();
            }
            if (isWanted(only, "totals")) {
                new Totals(stand).run();
            }
            if (isWanted(only, "import")) {
                new Importing(stand, ours, scale.imported()).run();
                new Parents(stand).run();
            }
            if (isWanted(only, "rehearsal")) {
                new Rehearsing(stand, scale.stays()).run();
            }
            if (isWanted(only, "release")) {
                new Releasing(stand, scale.stays()).run();
            }
            if (isWanted(only, "footprint")) {
                new Footprint(stand).run(demo);
            }
        }
    }

    private static boolean isWanted(List<String> only, String work) {
        return only.isEmpty() || only.contains(work);
    }

    private String text() {
        return """
        # Benchmarks

        Sandpiper against a service written by hand for the same work (Spring Boot, jOOQ, SQLite;
        `benchmarks/src/main/java/sandpiper/bench/control`), with the same rules, checks, totals, history, events and durability. Each runs in a
        process of its own with 1 GB of memory, on a file with %,d stays, and they are asked in turns on one machine; the load driver takes its share of
        the same processors. Medians of %d rounds of %d seconds, after two to warm up for each line and nine for all; the spread of the ratio in brackets.

        Written by `%s` on %s: %d processors, Java %s.

        %s\
        """
                .formatted(
                        scale.stays() + 400,
                        scale.rounds(),
                        scale.time().toSeconds(),
                        scale.command(),
                        LocalDate.now(ZoneOffset.UTC),
                        Runtime.getRuntime().availableProcessors(),
                        Runtime.version().feature(),
                        report.text());
    }
}
