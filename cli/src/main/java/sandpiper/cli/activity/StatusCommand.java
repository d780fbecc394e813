package sandpiper.cli.activity;

import java.io.PrintWriter;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Plural;
import sandpiper.cli.common.Table;
import sandpiper.client.ActivityCalls.Sharing;
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
        var answer = client.activity().status();
        var status = answer.value();
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(answer.json()));
        } else {
            out.printf(
                    "%s: version %s, release %d, %s%n",
                    client.server(),
                    status.version(),
                    status.release(),
                    Plural.of(status.services(), "service"));
            out.println("The data is in %s.".formatted(status.storedIn()));
            var sharing = status.sharing();
            if (sharing != null) {
                print(out, sharing);
            }
            int waiting = status.changedFiles();
            out.println(
                    waiting == 0
                            ? "The draft is released."
                            : "%s to be released."
                                    .formatted(
                                            waiting == 1
                                                    ? "1 file waits"
                                                    : waiting + " files wait"));
            status.working()
                    .forEach(one ->
                            out.printf(
                                    "%s is being worked out for the records that were there: %.0f"
                                            + " %%.%n",
                                    one.formula(), 100 * one.share()));
            var table = new Table(List.of("Object", "In use", "Retired"));
            status.objects()
                    .forEach(object ->
                            table.add(
                                    List.of(
                                            object.name(),
                                            String.valueOf(object.inUse()),
                                            String.valueOf(object.retired()))));
            table.print(out);
            var files = status.files();
            if (files != null && files.files() > 0) {
                out.printf(
                        "%,d %s with %,d bytes%n",
                        files.files(), files.files() == 1 ? "file" : "files", files.bytes());
            }
        }
        out.flush();
        return 0;
    }

    private static void print(PrintWriter out, Sharing sharing) {
        var processes = sharing.processes();
        out.printf(
                "%s on it: %s.%n",
                processes.size() == 1 ? "1 process works" : processes.size() + " processes work",
                processes.stream()
                        .map(one -> one.name() + (one.own() ? " (this one)" : ""))
                        .collect(Collectors.joining(", ")));
        out.printf(
                "Done again by this one: %,d since others changed the same, %,d since a connection"
                        + " was lost.%n",
                sharing.conflicts(), sharing.disconnects());
    }
}
