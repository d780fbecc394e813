package sandpiper.bench.line;

import java.time.Duration;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import sandpiper.client.ManageClient;
import sandpiper.demo.Demo;

/** Releases over many records while others read and write. */
public final class Releasing {
    private static final int CONNECTIONS = 8;
    private static final String FILE = "gullhaven/objects/stay.yaml";
    private static final Duration BEFORE = Duration.ofSeconds(1);

    private final Stand stand;
    private final int stays;
    private final ManageClient manage;

    /** Takes how many stays there are. */
    public Releasing(Stand stand, int stays) {
        this.stand = stand;
        this.stays = stays;
        this.manage = new ManageClient(stand.sandpiper().address(), Demo.ADMIN, Demo.PASSWORD);
    }

    /** Measures a field that is added, and a formula that becomes another. */
    public void run() throws Exception {
        release(
                "release an added field over %,d stays while 8 connections read and create",
                "under 1 s, none fails",
                "  remarks: ",
                "  harbourNote: { type: text, length: 40 }\n  remarks: ");
        release(
                "release another formula over %,d stays, until it is worked out for all, while 8"
                        + " connections read and create",
                "writers wait at most 1 s, none fails",
                "formula: grossTotal - netTotal",
                "formula: grossTotal - netTotal + 0 * nights");
    }

    private void release(String work, String goal, String before, String after) throws Exception {
        var path = "/manage/v1/draft";
        for (var file : manage.get(path).path("files")) {
            if (file.path("path").asString().equals(FILE)) {
                manage.put(
                        path + "/file",
                        Map.of(
                                "path",
                                FILE,
                                "text",
                                file.path("text").asString().replace(before, after)));
            }
        }
        var result = new double[2];
        Callable<Boolean> releasing =
                () -> {
                    Thread.sleep(BEFORE);
                    long start = System.nanoTime();
                    manage.post("/manage/v1/releases", Map.of("acceptFailing", true));
                    result[0] = (System.nanoTime() - start) / 1e9;
                    while (!manage.get("/manage/v1/status").path("working").isEmpty()) {
                        Thread.sleep(2_000);
                    }
                    result[1] = (System.nanoTime() - start) / 1e9;
                    return true;
                };
        var load = stand.during(CONNECTIONS, releasing);
        stand.report()
                .alone(
                        work.formatted(stays),
                        goal,
                        String.format(
                                Locale.ROOT,
                                "live after %.1f s, all worked out after %.1f s; the longest"
                                        + " request took %.0f ms, p99 %.0f ms, %d of %d failed",
                                result[0],
                                result[1],
                                load.longestMillis(),
                                load.millis(99),
                                load.failed(),
                                load.times().getTotalCount()));
    }
}
