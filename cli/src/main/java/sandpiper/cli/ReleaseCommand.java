package sandpiper.cli;

import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import sandpiper.client.ManageClient;

@Command(
        name = "release",
        mixinStandardHelpOptions = true,
        description =
                "Make the draft live: the tables follow, and the next request is served by it.",
        footer = {"", "Example:", "  sandpiper release --note \"Vessels get a beam\""})
final class ReleaseCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Option(names = "--note", defaultValue = "", description = "What the release is for.")
    String note;

    @Option(names = "--accept-losses", description = "Go on although data will be lost; see diff.")
    boolean acceptLosses;

    @Option(
            names = "--accept-breaks",
            description = "Go on although callers of published services break; see diff.")
    boolean acceptBreaks;

    @Option(
            names = "--accept-failing",
            description = "Go on although examples fail; see check --examples.")
    boolean acceptFailing;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var released =
                connection
                        .open()
                        .post(
                                "/manage/v1/releases",
                                Map.of(
                                        "note",
                                        note,
                                        "acceptLosses",
                                        acceptLosses,
                                        "acceptBreaks",
                                        acceptBreaks,
                                        "acceptFailing",
                                        acceptFailing));
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(released));
        } else {
            out.printf("Release %d is live.%n", released.path("number").asInt());
            released.path("changes").forEach(change -> out.println("  - " + change.asString()));
        }
        out.flush();
        return 0;
    }
}
