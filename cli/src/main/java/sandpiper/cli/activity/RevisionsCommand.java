package sandpiper.cli.activity;

import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.client.ActivityCalls.Revision;
import sandpiper.client.ManageClient;

@Command(
        name = "revisions",
        mixinStandardHelpOptions = true,
        description = {
            "Show the revisions of a service's contract and who still calls them.",
            "Each time answers get another shape a revision begins; callers are answered as the one"
                    + " they name."
        },
        footer = {
            "",
            "Example:",
            "  sandpiper revisions harbour-report",
            "  sandpiper revisions harbour-report --end 3"
        })
public final class RevisionsCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(paramLabel = "SERVICE", description = "The service's name.")
    String service;

    @Option(
            names = "--version-number",
            paramLabel = "N",
            defaultValue = "1",
            description = "The version of the service (default: ${DEFAULT-VALUE}).")
    int version;

    @Option(
            names = "--end",
            paramLabel = "REVISION",
            description = "End this revision: who still names it is refused.")
    @Nullable Integer ended;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var activity = connection.open().activity();
        var out = spec.commandLine().getOut();
        if (ended != null) {
            activity.endRevision(service, version, ended);
            out.printf("Revision %d of %s v%d is ended.%n", ended, service, version);
            out.flush();
            return 0;
        }
        var revisions = activity.revisions(service, version);
        if (json) {
            out.println(ManageClient.writePretty(revisions.json()));
        } else {
            var table =
                    new Table(List.of("Revision", "Since", "Answers got", "Called by", "State"));
            revisions.value().forEach(one -> table.add(row(one)));
            table.print(out);
        }
        out.flush();
        return 0;
    }

    private static List<String> row(Revision one) {
        return List.of(
                String.valueOf(one.number()),
                Objects.requireNonNullElse(one.at(), ""),
                String.join("; ", one.gained()),
                one.callers().stream()
                        .map(caller -> "%s (%d)".formatted(caller.caller(), caller.calls()))
                        .collect(Collectors.joining(", ")),
                one.endedAt() != null
                        ? "ended " + one.endedAt()
                        : one.newest() ? "newest" : "answered");
    }
}
