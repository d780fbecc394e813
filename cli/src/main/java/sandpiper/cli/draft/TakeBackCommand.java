package sandpiper.cli.draft;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.client.ManageClient;

@Command(
        name = "take-back",
        mixinStandardHelpOptions = true,
        description = {
            "Make an earlier release live again, as a new release.",
            "What was renamed since gets its name back, and values of what was removed since, which"
                    + " are kept aside for 30 days, come back. The draft follows, but for files"
                    + " that were changed in it."
        },
        footer = {
            "",
            "Examples:",
            "  sandpiper take-back 7 --dry-run",
            "  sandpiper take-back 7 --note \"The new tariff was wrong\" --accept-losses"
        })
public final class TakeBackCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Mixin Acceptance acceptance;

    @Parameters(paramLabel = "RELEASE", description = "The number of the release to go back to.")
    int number;

    @Option(names = "--note", defaultValue = "", description = "What it is done for.")
    String note;

    @Option(names = "--dry-run", description = "Only tell what it would do.")
    boolean dryRun;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var draft = connection.open().draft();
        var preview = draft.previewOfTakingBack(number, acceptance.forget);
        var out = spec.commandLine().getOut();
        if (dryRun && json) {
            out.println(ManageClient.writePretty(preview.json()));
            out.flush();
            return 0;
        }
        var said = json ? spec.commandLine().getErr() : out;
        said.print(DiffCommand.inWords(preview.value(), "Release %d".formatted(number)));
        if (!acceptance.covers(preview.value(), said) || dryRun) {
            said.flush();
            return dryRun ? 0 : 1;
        }
        said.flush();
        var released = draft.takeBack(number, acceptance.wanted(note));
        if (json) {
            out.println(ManageClient.writePretty(released.json()));
        } else {
            out.printf(
                    "Release %d is live, with what release %d had.%n",
                    released.value().number(), number);
        }
        out.flush();
        return 0;
    }
}
