package sandpiper.bench.line;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import sandpiper.bench.Calls;
import sandpiper.bench.load.Call;
import sandpiper.bench.load.Load;
import sandpiper.bench.load.Measured;
import sandpiper.bench.subject.Subject;

/** Creating, reading and querying in each protocol, against the control over REST. */
public final class Requests {
    private static final int MANY = 32;
    private static final int UNTIL_WARM = 2;

    /** Rounds of everything before anything is measured; compilers are busy for a minute. */
    private static final int UNTIL_WARM_AT_ALL = 3;

    private final Stand stand;
    private final List<Calls> protocols;
    private final String control;
    private int created;

    /** All protocols, or REST alone. */
    public Requests(Stand stand, boolean all) {
        this.stand = stand;
        var calls = Calls.of(stand.sandpiper().address());
        this.protocols = all ? calls : calls.subList(0, 1);
        this.control = stand.control().address() + "/stays";
    }

    /** Measures all of it. */
    public void run() throws IOException {
        var rest = protocols.getFirst();
        warmUp(rest);
        for (var calls : protocols) {
            compare(
                    "create a stay with 3 charges, rules, checks, history, event; %s, 32 connections"
                            .formatted(calls.protocol()),
                    calls == rest ? "5" : "",
                    MANY,
                    this.numbered(calls::create),
                    this.numbered(this::controlCreate));
        }
        compare(
                "the same; REST, 1 connection",
                "2",
                1,
                this.numbered(rest::create),
                this.numbered(this::controlCreate));
        for (var calls : protocols) {
            compare(
                    "read a stay by key, two references deep, with charges; %s, 32 connections"
                            .formatted(calls.protocol()),
                    calls == rest ? "2" : "",
                    MANY,
                    calls::read,
                    this::controlRead);
        }
        for (var calls : protocols) {
            compare(
                    "query a page of 50 by state and pier; %s, 32 connections"
                            .formatted(calls.protocol()),
                    calls == rest ? "2" : "",
                    MANY,
                    calls::query,
                    this::controlQuery);
        }
    }

    private void warmUp(Calls rest) throws IOException {
        for (int i = 0; i < UNTIL_WARM_AT_ALL; i++) {
            measure(stand.sandpiper(), MANY, numbered(rest::create));
            measure(stand.control(), MANY, numbered(this::controlCreate));
            measure(stand.sandpiper(), MANY, rest::read);
            measure(stand.control(), MANY, this::controlRead);
            measure(stand.sandpiper(), MANY, rest::query);
            measure(stand.control(), MANY, this::controlQuery);
        }
    }

    private Call controlCreate(int number) {
        return Call.post(control, Calls.Rest.body(number));
    }

    private Call controlRead(int number) {
        return Call.get(control + "/" + Calls.key(number));
    }

    private Call controlQuery(int number) {
        return Call.get(
                "%s?limit=50&state=Requested&pier=%s".formatted(control, Calls.pier(number)));
    }

    /** Numbers that go on from round to round, so that no two requests are the same. */
    private IntFunction<Call> numbered(IntFunction<Call> calls) {
        int from = created;
        created += 1_000_000;
        return n -> calls.apply(from + n);
    }

    private void compare(
            String work,
            String goal,
            int connections,
            IntFunction<Call> ours,
            IntFunction<Call> theirs)
            throws IOException {
        for (int i = 0; i < UNTIL_WARM; i++) {
            measure(stand.sandpiper(), connections, ours);
            measure(stand.control(), connections, theirs);
        }
        var ourRounds = new ArrayList<Report.Side>();
        var theirRounds = new ArrayList<Report.Side>();
        var ratios = new double[stand.rounds()];
        for (int i = 0; i < ratios.length; i++) {
            ourRounds.add(measure(stand.sandpiper(), connections, ours));
            theirRounds.add(measure(stand.control(), connections, theirs));
            ratios[i] = ourRounds.getLast().perSecond() / theirRounds.getLast().perSecond();
        }
        stand.report()
                .compared(
                        work,
                        goal.isEmpty() ? "" : "at least " + goal,
                        new Report.Ratios(ratios),
                        Report.Side.of(ourRounds),
                        Report.Side.of(theirRounds));
    }

    private Report.Side measure(Subject subject, int connections, IntFunction<Call> calls)
            throws IOException {
        var before = subject.processorTime();
        var measured = Load.on(subject.address(), connections).closed(stand.time(), calls);
        return side(subject, before, measured);
    }

    static Report.Side side(Subject subject, java.time.Duration before, Measured measured) {
        long taken = subject.processorTime().minus(before).toNanos() / 1_000;
        return new Report.Side(
                measured.perSecond(),
                measured.millis(50),
                measured.millis(99),
                (double) taken / measured.times().getTotalCount());
    }
}
