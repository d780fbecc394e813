package sandpiper.bench.line;

import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import sandpiper.bench.load.Measured;
import sandpiper.client.ManageClient;
import sandpiper.demo.Demo;
import tools.jackson.databind.JsonNode;

/** A release rehearsed on a copy of many records, and what callers of the live service notice. */
public final class Rehearsing {
    private static final int CONNECTIONS = 8;
    private static final String FILE = "gullhaven/objects/stay.yaml";
    private static final String DRAFT = "/manage/v1/draft";
    private static final String REHEARSAL = "/manage/v1/rehearsal";
    private static final int STEP_MILLIS = 200;

    private final Stand stand;
    private final int stays;
    private final ManageClient manage;

    /** Takes how many stays there are. */
    public Rehearsing(Stand stand, int stays) {
        this.stand = stand;
        this.stays = stays;
        this.manage = new ManageClient(stand.sandpiper().address(), Demo.ADMIN, Demo.PASSWORD);
    }

    /** Measures a field with a formula that is added; the draft is taken back at the end. */
    public void run() throws Exception {
        for (var file : manage.get(DRAFT).path("files")) {
            if (file.path("path").asString().equals(FILE)) {
                var text =
                        file.path("text")
                                .asString()
                                .replace(
                                        "  remarks: ",
                                        "  twice: { type: integer, formula: nights * 2 }\n"
                                                + "  remarks: ");
                manage.put(DRAFT + "/file", Map.of("path", FILE, "text", text));
            }
        }
        var came = new JsonNode[1];
        var started = new long[2];
        Callable<Boolean> rehearsing =
                () -> {
                    started[0] = System.nanoTime();
                    came[0] = manage.post(REHEARSAL, Map.of());
                    while (!came[0].path("over").asBoolean()) {
                        Thread.sleep(STEP_MILLIS);
                        came[0] = manage.get(REHEARSAL).path("last");
                    }
                    started[1] = System.nanoTime();
                    // What is measured next is to be without it.
                    manage.delete(REHEARSAL);
                    return true;
                };
        var beside = stand.during(CONNECTIONS, rehearsing);
        long took = started[1] - started[0];
        var alone =
                stand.during(
                        CONNECTIONS,
                        () -> {
                            Thread.sleep(took / 1_000_000);
                            return true;
                        });
        manage.post(DRAFT + "/take-back", Map.of());
        stand.report()
                .alone(
                        "rehearse an added formula over %,d stays while 8 connections read and create"
                                .formatted(stays),
                        "none fails",
                        told(came[0], took / 1e9, beside, alone));
    }

    private static String told(JsonNode came, double took, Measured beside, Measured alone) {
        return String.format(
                Locale.ROOT,
                "%s after %.1f s (copy %.1f s, release %.1f s, formulas %.1f s); p99 %.0f ms beside"
                    + " it and %.0f ms without, longest %.0f and %.0f ms, %.0f and %.0f answers a"
                    + " second, %d failed",
                came.path("stage").asString(),
                took,
                came.path("copyMillis").asDouble() / 1e3,
                came.path("releaseMillis").asDouble() / 1e3,
                came.path("formulaMillis").asDouble() / 1e3,
                beside.millis(99),
                alone.millis(99),
                beside.longestMillis(),
                alone.longestMillis(),
                beside.perSecond(),
                alone.perSecond(),
                beside.failed());
    }
}
