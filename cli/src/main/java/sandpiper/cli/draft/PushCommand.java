package sandpiper.cli.draft;

import java.nio.file.Path;
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
        name = "push",
        mixinStandardHelpOptions = true,
        description = "Put packages into the draft of a service; other packages there stay.",
        footer = {"", "Example:", "  sandpiper push demo/packages/gullhaven"})
public final class PushCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(paramLabel = "FOLDER", description = "A package, or a folder of packages.")
    Path folder;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var client = connection.open();
        var answer = client.draft().push(PackageFiles.read(folder));
        var pushed = answer.value();
        int errors = pushed.errors();
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(answer.json()));
        } else {
            Pushing.tell(pushed, out);
            if (errors == 0) {
                var concerns = DiffCommand.concerns(client.draft().preview().value());
                out.print(concerns);
                out.println(
                        concerns.isEmpty()
                                ? "The draft is in order; \"sandpiper release\" makes it live."
                                : "The draft is in order by itself, but see above before it is"
                                        + " released.");
            } else {
                out.println(
                        "The draft is kept, but has %d %s."
                                .formatted(errors, errors == 1 ? "error" : "errors"));
            }
        }
        out.flush();
        return errors == 0 ? 0 : 1;
    }
}
