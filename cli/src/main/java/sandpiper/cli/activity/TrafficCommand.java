package sandpiper.cli.activity;

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

@Command(
        name = "traffic",
        mixinStandardHelpOptions = true,
        description = "Show how services are called, and the last calls that failed.",
        footer = {"", "Example:", "  sandpiper traffic berth-desk --days 30 --failed"})
public final class TrafficCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(
            paramLabel = "SERVICE",
            arity = "0..1",
            description = "The service's name; all when absent.")
    @Nullable String service;

    @Option(
            names = "--days",
            paramLabel = "N",
            defaultValue = "7",
            description = "How far back (default: ${DEFAULT-VALUE}).")
    int days;

    @Option(names = "--failed", description = "Show the last calls that failed instead.")
    boolean failed;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var traffic = connection.open().activity().traffic(days);
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(traffic.json()));
        } else if (failed) {
            var table =
                    new Table(List.of("At", "Service", "Call", "By", "Status", "What was wrong"));
            for (var one : traffic.value().failed()) {
                if (isMeant(one.service())) {
                    table.add(
                            List.of(
                                    one.at(),
                                    one.service(),
                                    one.resource() + " " + one.operation(),
                                    one.caller(),
                                    String.valueOf(one.status()),
                                    one.message()));
                }
            }
            table.print(out);
        } else {
            var table =
                    new Table(
                            List.of("Service", "Call", "Over", "By", "Calls", "Errors", "Mean ms"));
            for (var one : traffic.value().calls()) {
                if (isMeant(one.service())) {
                    table.add(
                            List.of(
                                    one.version() == 0
                                            ? one.service()
                                            : one.service() + " v" + one.version(),
                                    one.resource() + " " + one.operation(),
                                    one.protocol(),
                                    one.caller(),
                                    String.valueOf(one.calls()),
                                    String.valueOf(one.errors()),
                                    String.valueOf(one.meanMillis())));
                }
            }
            table.print(out);
        }
        out.flush();
        return 0;
    }

    private boolean isMeant(String name) {
        return service == null || service.equals(name);
    }
}
