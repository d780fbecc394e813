package sandpiper.bench.line;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.function.IntFunction;
import sandpiper.bench.Calls;
import sandpiper.bench.load.Call;
import sandpiper.bench.load.Load;

/**
 * Reads and writes mixed, at the same fixed rate for both: how long the slowest of a hundred takes.
 * The rate is what the control can do with some room, so that neither has a queue that only grows.
 */
public final class Mixed {
    private static final int CONNECTIONS = 32;

    /** One request of so many writes. */
    private static final int WRITES = 5;

    private static final double ROOM = 0.6;

    private final Stand stand;

    public Mixed(Stand stand) {
        this.stand = stand;
    }

    /** Measures it. */
    public void run() throws IOException {
        var rest = Calls.of(stand.sandpiper().address()).getFirst();
        var control = stand.control().address() + "/stays";
        IntFunction<Call> ours = n -> n % WRITES == 0 ? rest.create(n) : rest.read(n);
        IntFunction<Call> theirs =
                n ->
                        n % WRITES == 0
                                ? Call.post(control, Calls.Rest.body(n))
                                : Call.get(control + "/" + Calls.key(n));
        var most =
                Load.on(stand.control().address(), CONNECTIONS)
                        .closed(stand.time(), theirs)
                        .perSecond();
        Load.on(stand.sandpiper().address(), CONNECTIONS).closed(stand.time(), ours);
        double rate = most * ROOM;
        var ourRounds = new ArrayList<Report.Side>();
        var theirRounds = new ArrayList<Report.Side>();
        var ratios = new double[stand.rounds()];
        for (int i = 0; i < ratios.length; i++) {
            var before = stand.sandpiper().processorTime();
            ourRounds.add(
                    Requests.side(
                            stand.sandpiper(),
                            before,
                            fixed(stand.sandpiper().address(), rate, ours)));
            before = stand.control().processorTime();
            theirRounds.add(
                    Requests.side(
                            stand.control(),
                            before,
                            fixed(stand.control().address(), rate, theirs)));
            ratios[i] = theirRounds.getLast().p99Millis() / ourRounds.getLast().p99Millis();
        }
        stand.report()
                .compared(
                        "4 reads to 1 create at %.0f a second, 32 connections; ratio of the control's p99 to Sandpiper's"
                                .formatted(rate),
                        "at least 1",
                        new Report.Ratios(ratios),
                        Report.Side.of(ourRounds),
                        Report.Side.of(theirRounds));
    }

    private sandpiper.bench.load.Measured fixed(String server, double rate, IntFunction<Call> calls)
            throws IOException {
        Duration time = stand.time();
        return Load.on(server, CONNECTIONS).fixed(time, rate, calls);
    }
}
