package sandpiper.bench.line;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import sandpiper.bench.Calls;
import sandpiper.bench.load.Call;
import sandpiper.bench.load.Load;
import sandpiper.bench.subject.Subject;

/** Creating and reading with one process and with two on one database, and on a file. */
public final class Scaling {
    /** How often each is measured. */
    public static final int ROUNDS = 3;

    /** How long each time. */
    public static final Duration ROUND = Duration.ofSeconds(4);

    private static final int CONNECTIONS = 32;
    private static final int UNTIL_WARM = 6;

    private final List<Subject> processes;
    private final Subject onFile;
    private final Subject control;
    private final Subject controlOnFile;
    private final Report report;
    private int created;

    /** Sandpiper's processes on one database, and the others beside them. */
    public Scaling(
            List<Subject> processes,
            Subject onFile,
            Subject control,
            Subject controlOnFile,
            Report report) {
        this.processes = processes;
        this.onFile = onFile;
        this.control = control;
        this.controlOnFile = controlOnFile;
        this.report = report;
    }

    /** What a service is asked for. */
    private enum Work {
        CREATE("create a stay with 3 charges, rules, checks, history, event"),
        READ("read a stay by key, two references deep, with charges");

        private final String words;

        Work(String words) {
            this.words = words;
        }
    }

    /** One or several processes, measured together. */
    private record Party(List<Subject> processes, boolean byHand) {
        Duration processorTime() {
            return processes.stream()
                    .map(Subject::processorTime)
                    .reduce(Duration.ZERO, Duration::plus);
        }

        Call call(Work work, int number) {
            // All have the same addresses but for where they answer.
            if (byHand) {
                return work == Work.CREATE
                        ? Call.post(first() + "/stays", Calls.Rest.body(number))
                        : Call.get(first() + "/stays/" + Calls.key(number));
            }
            var rest = Calls.of(first()).getFirst();
            return work == Work.CREATE ? rest.create(number) : rest.read(number);
        }

        private String first() {
            return processes.getFirst().address();
        }
    }

    /** Measures all of it. */
    public void run() throws IOException {
        var one = new Party(processes.subList(0, 1), false);
        var second = new Party(processes.subList(1, 2), false);
        var both = new Party(processes, false);
        var file = new Party(List.of(onFile), false);
        var byHand = new Party(List.of(control), true);
        var byHandOnFile = new Party(List.of(controlOnFile), true);
        for (int i = 0; i < UNTIL_WARM; i++) {
            for (var party : List.of(one, second, file, byHand, byHandOnFile)) {
                for (var work : Work.values()) {
                    measure(party, work, CONNECTIONS);
                }
            }
        }
        for (var work : Work.values()) {
            compare(work, "one process : control, both on PostgreSQL", "at least 2", one, byHand);
            compare(work, "two processes : one, on PostgreSQL", "", both, one);
            compare(work, "on a file : control on a file", "", file, byHandOnFile);
            compare(work, "on PostgreSQL : on a file", "", one, file);
        }
        compare(
                Work.CREATE,
                "1 connection, one process : control, both on PostgreSQL",
                "",
                1,
                one,
                byHand);
    }

    private void compare(Work work, String what, String goal, Party left, Party right)
            throws IOException {
        compare(work, CONNECTIONS + " connections, " + what, goal, CONNECTIONS, left, right);
    }

    private void compare(
            Work work, String what, String goal, int connections, Party left, Party right)
            throws IOException {
        var ours = new ArrayList<Report.Side>();
        var theirs = new ArrayList<Report.Side>();
        var ratios = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            ours.add(measure(left, work, connections));
            theirs.add(measure(right, work, connections));
            ratios[i] = ours.getLast().perSecond() / theirs.getLast().perSecond();
        }
        report.compared(
                work.words + "; " + what,
                goal,
                new Report.Ratios(ratios),
                Report.Side.of(ours),
                Report.Side.of(theirs));
    }

    private Report.Side measure(Party party, Work work, int connections) throws IOException {
        int from = created;
        created += 100_000;
        IntFunction<Call> calls = n -> party.call(work, from + n);
        var before = party.processorTime();
        var measured =
                Load.onAll(party.processes().stream().map(Subject::address).toList(), connections)
                        .closed(ROUND, calls);
        long taken = party.processorTime().minus(before).toNanos() / 1_000;
        return new Report.Side(
                measured.perSecond(),
                measured.millis(50),
                measured.millis(99),
                (double) taken / measured.times().getTotalCount());
    }
}
