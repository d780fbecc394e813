package sandpiper.cli.activity;

import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.client.ManageClient;

@Command(
        name = "status",
        mixinStandardHelpOptions = true,
        description = "Tell where a service stands.",
        footer = {
            "",
            "Example:",
            "  sandpiper status --server http://127.0.0.1:8080 --user consultant"
        })
public final class StatusCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var client = connection.open();
        var status = client.get("/manage/v1/status");
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(status));
        } else {
            out.printf(
                    "%s: version %s, release %d, %d services%n",
                    client.server(),
                    status.path("version").asString(),
                    status.path("release").asInt(),
                    status.path("services").asInt());
            int waiting = status.path("changedFiles").asInt();
            out.println(
                    waiting == 0
                            ? "The draft is released."
                            : "%d files wait to be released.".formatted(waiting));
            status.path("working")
                    .forEach(one ->
                            out.printf(
                                    "%s is being worked out for the records that were there: %.0f"
                                            + " %%.%n",
                                    one.path("formula").asString(),
                                    100 * one.path("share").asDouble()));
            var table = new Table(List.of("Object", "In use", "Retired"));
            status.path("objects")
                    .forEach(object ->
                            table.add(
                                    List.of(
                                            object.path("name").asString(),
                                            object.path("inUse").asString(),
                                            object.path("retired").asString())));
            table.print(out);
        }
        out.flush();
        return 0;
    }
}
