package sandpiper.cli.activity;

import static sandpiper.client.ManageClient.escape;

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
import sandpiper.client.ManageClient;
import tools.jackson.databind.JsonNode;

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
        var client = connection.open();
        var out = spec.commandLine().getOut();
        var answer = id == null ? client.get("/manage/v1/traces?limit=" + limit) : one(client, id);
        if (json) {
            out.println(ManageClient.writePretty(answer));
        } else if (id == null) {
            list(answer, out);
        } else {
            out.printf(
                    "%s by %s through %s: %s%n",
                    answer.path("what").asString(),
                    answer.path("by").asString(),
                    answer.path("via").asString(),
                    answer.path("outcome").asString());
            print(answer.path("steps"), out);
        }
        out.flush();
        return 0;
    }

    private static JsonNode one(ManageClient client, String wanted) {
        var id =
                wanted.equals(LAST)
                        ? client.get("/manage/v1/traces?limit=1").path(0).path("id").asString("")
                        : wanted;
        return client.get("/manage/v1/traces/" + escape(id));
    }

    private static void list(JsonNode traces, PrintWriter out) {
        if (traces.isEmpty()) {
            out.println("No request was refused yet, and none asked for an account.");
            return;
        }
        var table = new Table(List.of("At", "What", "By", "Through", "Outcome", "Id"));
        traces.forEach(trace ->
                table.add(
                        List.of(
                                trace.path("at").asString().replaceFirst("\\.\\d+Z$", "Z"),
                                trace.path("what").asString(),
                                trace.path("by").asString(),
                                trace.path("via").asString(),
                                trace.path("outcome").asString(),
                                trace.path("id").asString())));
        table.print(out);
    }

    /** Prints steps as a tree. */
    public static void print(JsonNode steps, PrintWriter out) {
        for (var step : steps) {
            var detail = step.path("detail").asString();
            var result = step.path("result").asString();
            out.printf(
                    "%7.1f ms  %s%-10s %s%s%s%n",
                    step.path("micros").asLong() / 1000.0,
                    "  ".repeat(step.path("depth").asInt()),
                    step.path("kind").asString().toLowerCase(java.util.Locale.ROOT),
                    step.path("title").asString(),
                    detail.isEmpty() ? "" : "  [" + detail + "]",
                    result.isEmpty() ? "" : "  = " + result);
        }
    }
}
