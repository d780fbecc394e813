package sandpiper.cli.activity;

import java.io.PrintWriter;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.client.ActivityCalls;
import sandpiper.client.ActivityCalls.Step;
import sandpiper.client.ActivityCalls.Trace;
import sandpiper.client.Answer;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;

@Command(
        name = "trace",
        mixinStandardHelpOptions = true,
        description = {
            "Show the account of a request, step by step; without an id, list the last ones.",
            "Every refused request has one; others when they ask for it with Sandpiper-Trace: on."
        },
        footer = {
            "",
            "Examples:",
            "  sandpiper trace",
            "  sandpiper trace last",
        })
public final class TraceCommand implements Callable<Integer> {
    private static final String LAST = "last";
    private static final String NONE_YET =
            "No request was refused yet, and none asked for an account.";

    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(
            index = "0",
            arity = "0..1",
            paramLabel = "ID",
            description = "The account's id, or last.")
    @Nullable String id;

    @Option(names = "--limit", paramLabel = "N", defaultValue = "20", description = "How many.")
    int limit;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var activity = connection.open().activity();
        var out = spec.commandLine().getOut();
        if (id == null) {
            var all = activity.traces(limit);
            if (json) {
                out.println(ManageClient.writePretty(all.json()));
            } else {
                list(all.value(), out);
            }
        } else {
            var one = one(activity, id);
            if (json) {
                out.println(ManageClient.writePretty(one.json()));
            } else {
                var trace = one.value();
                out.printf(
                        "%s by %s through %s: %s%n",
                        trace.what(), trace.by(), trace.via(), trace.outcome());
                print(trace.steps(), out);
            }
        }
        out.flush();
        return 0;
    }

    private static Answer<Trace> one(ActivityCalls activity, String wanted) {
        return wanted.equals(LAST)
                ? activity.lastTrace()
                        .orElseThrow(() -> new RefusedException(0, NONE_YET, List.of()))
                : activity.trace(wanted);
    }

    private static void list(List<Trace> traces, PrintWriter out) {
        if (traces.isEmpty()) {
            out.println(NONE_YET);
            return;
        }
        var table = new Table(List.of("At", "What", "By", "Through", "Outcome", "Id"));
        traces.forEach(trace ->
                table.add(
                        List.of(
                                trace.at().replaceFirst("\\.\\d+Z$", "Z"),
                                trace.what(),
                                trace.by(),
                                trace.via(),
                                trace.outcome(),
                                trace.id())));
        table.print(out);
    }

    /** Prints steps as a tree. */
    public static void print(List<Step> steps, PrintWriter out) {
        for (var step : steps) {
            var detail = step.detail();
            var result = step.result();
            out.printf(
                    "%7.1f ms  %s%-10s %s%s%s%n",
                    step.micros() / 1000.0,
                    "  ".repeat(step.depth()),
                    step.kind().toLowerCase(java.util.Locale.ROOT),
                    step.title(),
                    detail.isEmpty() ? "" : "  [" + detail + "]",
                    result.isEmpty() ? "" : "  = " + result);
        }
    }
}
