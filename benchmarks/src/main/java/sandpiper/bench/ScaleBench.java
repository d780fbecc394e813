package sandpiper.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Comparator;
import java.util.List;
import sandpiper.bench.data.ControlData;
import sandpiper.bench.data.DatabaseData;
import sandpiper.bench.data.SandpiperData;
import sandpiper.bench.line.Report;
import sandpiper.bench.line.Scaling;
import sandpiper.bench.subject.Subject;
import sandpiper.testing.PrivatePostgres;

/**
 * Measures one process and two on a PostgreSQL of their own, and one on a file, against the service
 * written by hand on the same engines.
 */
public final class ScaleBench {
    private ScaleBench() {}

    /** Takes the file to write and the number of stays besides the marina's own. */
    public static void main(String[] arguments) throws Exception {
        int stays = Integer.parseInt(arguments[1]);
        var folder = Files.createTempDirectory(Path.of("benchmarks/target"), "scale");
        var report = new Report();
        try (var postgres = PrivatePostgres.durable()) {
            measure(folder, postgres, stays, report);
        }
        Files.writeString(Path.of(arguments[0]), text(stays, report));
        try (var files = Files.walk(folder)) {
            for (var file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(file);
            }
        }
    }

    private static void measure(Path folder, PrivatePostgres postgres, int stays, Report report)
            throws Exception {
        var file = folder.resolve("sandpiper.db");
        var controlFile = folder.resolve("control.db");
        SandpiperData.make(file);
        SandpiperData.multiply(file, stays);
        ControlData.make(controlFile, stays);
        var database = postgres.schema();
        var controlDatabase = postgres.schema();
        DatabaseData.sandpiper(file, database);
        DatabaseData.control(controlFile, controlDatabase);
        var key = Path.of(file + ".key");
        try (var one = Subject.sandpiper(database, key);
                var two = Subject.sandpiper(database, key);
                var onFile = Subject.sandpiper(file);
                var control = Subject.control(controlDatabase);
                var controlOnFile = Subject.control(controlFile)) {
            new Scaling(List.of(one, two), onFile, control, controlOnFile, report).run();
        }
    }

    private static String text(int stays, Report report) throws IOException {
        return """
        # Benchmarks on PostgreSQL

        Sandpiper against the service written by hand (as in [benchmarks.md](benchmarks.md)), both on one PostgreSQL that syncs each commit, with %,d
        stays. The database, the services and the load driver share the processors of one machine; what is measured takes turns. Medians of %d rounds of %d
        seconds; the spread of the ratio in brackets.

        Written by `./bench scale` on %s: %d processors, Java %s.

        %s\
        """
                .formatted(
                        stays + 400,
                        Scaling.ROUNDS,
                        Scaling.ROUND.toSeconds(),
                        LocalDate.now(ZoneOffset.UTC),
                        Runtime.getRuntime().availableProcessors(),
                        Runtime.version().feature(),
                        report.sideBySide());
    }
}
