package sandpiper.bench.line;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.Locale;
import sandpiper.bench.Calls;
import sandpiper.bench.data.BareWriter;
import sandpiper.bench.load.Load;

/** How near the service comes to the storage with nothing around it. */
public final class Bare {
    private static final int CONNECTIONS = 32;
    private static final int CHARGES = 3;
    private static final int GROUP = 32;

    private final Stand stand;
    private final Path data;

    /** Takes Sandpiper's data file, of which a copy is written to. */
    public Bare(Stand stand, Path data) {
        this.stand = stand;
        this.data = data;
    }

    /** Measures it. */
    public void run() throws IOException, SQLException {
        var rest = Calls.of(stand.sandpiper().address()).getFirst();
        var load = Load.on(stand.sandpiper().address(), CONNECTIONS);
        load.closed(stand.time(), n -> rest.create(7_000_000 + n));
        var copy = stand.folder().resolve("bare.db");
        // Whatever the copy misses of what is being written, it has a stay, history and an event.
        try (var connection = java.sql.DriverManager.getConnection("jdbc:sqlite:" + data);
                var sql = connection.createStatement()) {
            sql.execute("vacuum into '" + copy + "'");
        }
        var ratios = new double[stand.rounds()];
        var grouped = new double[stand.rounds()];
        double ours = 0;
        try (var bare = new BareWriter(copy, CHARGES)) {
            bare.run(stand.time(), 1);
            for (int i = 0; i < ratios.length; i++) {
                ours = load.closed(stand.time(), n -> rest.create(8_000_000 + n)).perSecond();
                ratios[i] = ours / bare.run(stand.time(), 1);
                grouped[i] = bare.run(stand.time(), GROUP);
            }
        }
        Files.delete(copy);
        stand.report()
                .alone(
                        "create over REST, 32 connections : the same inserts over JDBC alone, a"
                                + " commit each",
                        "at least 0.5",
                        String.format(
                                Locale.ROOT,
                                "%s; %.0f a second, where JDBC alone with %d in a commit does %.0f",
                                new Report.Ratios(ratios),
                                ours,
                                GROUP,
                                Report.median(grouped)));
    }
}
