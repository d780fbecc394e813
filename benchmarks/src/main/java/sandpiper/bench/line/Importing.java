package sandpiper.bench.line;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Locale;
import sandpiper.bench.Fitting;
import sandpiper.bench.data.BareWriter;
import sandpiper.demo.Demo;

/** Importing stays from a CSV file with the command line, against the same inserts over JDBC. */
public final class Importing {
    private static final int GROUP = 200;

    private final Stand stand;
    private final Path data;
    private final int rows;

    /** Takes Sandpiper's data file, and how many rows to import. */
    public Importing(Stand stand, Path data, int rows) {
        this.stand = stand;
        this.data = data;
        this.rows = rows;
    }

    /** Measures it. */
    public void run() throws IOException, SQLException, InterruptedException {
        var file = stand.folder().resolve("stays.csv");
        write(file);
        long heap = stand.sandpiper().liveHeap();
        long start = System.nanoTime();
        load(stand, "Stay", file);
        double rate = rows / ((System.nanoTime() - start) / 1e9);
        long after = stand.sandpiper().liveHeap();
        var copy = stand.folder().resolve("bare.db");
        try (var connection = java.sql.DriverManager.getConnection("jdbc:sqlite:" + data);
                var sql = connection.createStatement()) {
            sql.execute("vacuum into '" + copy + "'");
        }
        double bare;
        try (var writer = new BareWriter(copy, 0)) {
            writer.run(stand.time(), GROUP);
            bare = writer.run(stand.time(), GROUP);
        }
        Files.delete(copy);
        stand.report()
                .alone(
                        "import %,d CSV rows with all rules : the same inserts over JDBC in groups of %d"
                                .formatted(rows, GROUP),
                        "at least 0.4, memory flat",
                        String.format(
                                Locale.ROOT,
                                "**%.2f**; %.0f rows a second : %.0f; live heap %d MB before, %d MB"
                                        + " after",
                                rate / bare,
                                rate,
                                bare,
                                heap,
                                after));
    }

    private void write(Path file) throws IOException {
        try (var out = Files.newBufferedWriter(file)) {
            out.write("number,vessel,berth,arrival,departure\n");
            for (int i = 1; i <= rows; i++) {
                var fitting = Fitting.at(i);
                var arrival = LocalDate.of(2028, 1, 1).plusDays(i % 300);
                out.write(
                        "ST-2028-%06d,%s,%s,%s,%s%n"
                                .formatted(
                                        i,
                                        fitting.vessel(),
                                        fitting.berth(),
                                        arrival,
                                        arrival.plusDays(1 + i % 20)));
            }
        }
    }

    /** Imports a file with the command line. */
    static void load(Stand stand, String object, Path file)
            throws IOException, InterruptedException {
        var builder =
                new ProcessBuilder(
                        "./sandpiper",
                        "records",
                        "import",
                        object,
                        file.toString(),
                        // Their numbers come along.
                        "--whole",
                        "--quiet");
        builder.environment().put("SANDPIPER_SERVER", stand.sandpiper().address());
        builder.environment().put("SANDPIPER_USER", Demo.ADMIN);
        builder.environment().put("SANDPIPER_PASSWORD", Demo.PASSWORD);
        int code = builder.inheritIO().start().waitFor();
        if (code != 0) {
            throw new IOException("The import ends with " + code + ".");
        }
    }
}
