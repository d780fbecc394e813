package sandpiper.bench.line;

import java.io.IOException;
import java.util.Locale;
import sandpiper.bench.load.Call;
import sandpiper.bench.load.Load;
import sandpiper.demo.Demo;

/**
 * Adding a record to many that a total is taken of, and to few: what a total costs must not grow
 * with what it sums.
 */
public final class Totals {
    /** A vessel with many inspections. */
    public static final String MANY = "GH-101";

    /** How many. */
    public static final int COUNT = 100_000;

    private static final String FEW = "GH-102";

    private final Stand stand;

    public Totals(Stand stand) {
        this.stand = stand;
    }

    /** Measures it. */
    public void run() throws IOException {
        for (int i = 0; i < 2; i++) {
            rate(FEW);
            rate(MANY);
        }
        var ratios = new double[stand.rounds()];
        double last = 0;
        for (int i = 0; i < ratios.length; i++) {
            double few = rate(FEW);
            last = rate(MANY);
            ratios[i] = few / last;
        }
        stand.report()
                .alone(
                        "add an inspection to a vessel whose totals are over %,d of them : to one with a handful; 1 connection"
                                .formatted(COUNT),
                        "at most 1.2 in cost",
                        String.format(
                                Locale.ROOT,
                                "%s; %.0f a second with many",
                                new Report.Ratios(ratios),
                                last));
    }

    private double rate(String vessel) throws IOException {
        var call =
                Call.postAs(
                        Demo.ADMIN + ":" + Demo.PASSWORD,
                        stand.sandpiper().address() + "/manage/v1/records/CraftInspection",
                        """
                        {"vessel": "%s", "inspectedOn": "2026-05-01", "inspector": "Imke Lorch", "minutes": 5, "passed": true}\
                        """
                                .formatted(vessel));
        return Load.on(stand.sandpiper().address(), 1).closed(stand.time(), _ -> call).perSecond();
    }
}
