package sandpiper.bench.line;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import sandpiper.client.ManageClient;
import sandpiper.demo.Demo;

/** An import that changes the totals of a thousand other records, while others read and write. */
public final class Parents {
    private static final int VESSELS = 1_000;
    private static final int INSPECTIONS = 10_000;
    private static final int MINUTES = 5;
    private static final int CONNECTIONS = 4;

    private final Stand stand;
    private final ManageClient manage;

    public Parents(Stand stand) {
        this.stand = stand;
        this.manage = new ManageClient(stand.sandpiper().address(), Demo.ADMIN, Demo.PASSWORD);
    }

    /** Measures it, and looks whether the totals are right. */
    public void run() throws IOException, InterruptedException {
        Importing.load(stand, "Vessel", vessels());
        var inspections = inspections();
        double[] seconds = new double[1];
        var load =
                stand.during(
                        CONNECTIONS,
                        () -> {
                            long start = System.nanoTime();
                            Importing.load(stand, "CraftInspection", inspections);
                            seconds[0] = (System.nanoTime() - start) / 1e9;
                            return true;
                        });
        check();
        stand.report()
                .alone(
                        "import %,d inspections of %,d vessels, whose totals follow, while %d connections read and create"
                                .formatted(INSPECTIONS, VESSELS, CONNECTIONS),
                        "writers wait at most 1 s, none fails",
                        String.format(
                                Locale.ROOT,
                                "%.0f rows a second; the longest request took %.0f ms, p99 %.0f"
                                        + " ms, %d of %d failed",
                                INSPECTIONS / seconds[0],
                                load.longestMillis(),
                                load.millis(99),
                                load.failed(),
                                load.times().getTotalCount()));
    }

    private Path vessels() throws IOException {
        var owner =
                manage.get("/manage/v1/records/Owner?limit=1")
                        .path("records")
                        .path(0)
                        .path("values")
                        .path("code")
                        .asString();
        var file = stand.folder().resolve("vessels.csv");
        try (var out = Files.newBufferedWriter(file)) {
            out.write("registration,name,length,owner\n");
            for (int i = 0; i < VESSELS; i++) {
                out.write("%s,Barge %d,9.5,%s%n".formatted(registration(i), i, owner));
            }
        }
        return file;
    }

    private static String registration(int vessel) {
        return "PB-%04d".formatted(vessel);
    }

    private Path inspections() throws IOException {
        var file = stand.folder().resolve("inspections.csv");
        try (var out = Files.newBufferedWriter(file)) {
            out.write("vessel,inspectedOn,inspector,minutes,passed\n");
            for (int i = 0; i < INSPECTIONS; i++) {
                out.write(
                        "%s,2026-05-01,Imke Lorch,%d,true%n"
                                .formatted(registration(i % VESSELS), MINUTES));
            }
        }
        return file;
    }

    private void check() throws IOException {
        for (int vessel : new int[] {0, VESSELS / 2, VESSELS - 1}) {
            var minutes =
                    manage.get("/manage/v1/records/Vessel/" + registration(vessel))
                            .path("values")
                            .path("inspectionMinutes")
                            .asInt();
            if (minutes != MINUTES * INSPECTIONS / VESSELS) {
                throw new IOException("%s has %d minutes".formatted(registration(vessel), minutes));
            }
        }
    }
}
