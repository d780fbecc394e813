package sandpiper.cli.draft;

import java.nio.file.Path;
import java.util.OptionalInt;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.client.ManageClient;

@Command(
        name = "release",
        mixinStandardHelpOptions = true,
        description =
                "Make the draft live: the tables follow, and the next request is served by it.",
        footer = {
            "",
            "With a folder, everything from check to release in one go; it stops, and changes",
            "nothing that is live, at errors and at what you have to say yes to.",
            "",
            "Examples:",
            "  sandpiper release --note \"Vessels get a beam\"",
            "  sandpiper release demo/packages/gullhaven --note \"Vessels get a beam\""
        })
public final class ReleaseCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(
            paramLabel = "FOLDER",
            arity = "0..1",
            description = "A package, or a folder of packages, to check and push first.")
    @Nullable Path folder;

    @Option(names = "--note", defaultValue = "", description = "What the release is for.")
    String note;

    @Mixin Acceptance acceptance;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var client = connection.open();
        if (folder != null) {
            var stopped = prepare(client, folder);
            if (stopped.isPresent()) {
                return stopped.getAsInt();
            }
        }
        var released = client.draft().release(acceptance.wanted(note));
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(released.json()));
        } else {
            out.printf("Release %d is live.%n", released.value().number());
            if (folder == null) {
                released.value().changes().forEach(change -> out.println("  - " + change));
            }
        }
        out.flush();
        return 0;
    }

    /**
     * Pushes a folder, which checks it, and tells what would change.
     *
     * @return the exit code with which to stop here, or nothing when all of it may go live
     */
    private OptionalInt prepare(ManageClient client, Path packages) {
        var out = json ? spec.commandLine().getErr() : spec.commandLine().getOut();
        var pushed = client.draft().push(PackageFiles.read(packages)).value();
        int errors = pushed.errors();
        if (errors > 0) {
            Pushing.tell(pushed, out);
            out.println(
                    "The draft has %d %s; nothing was released."
                            .formatted(errors, errors == 1 ? "error" : "errors"));
            out.flush();
            return OptionalInt.of(1);
        }
        var preview = client.draft().preview(acceptance.forget).value();
        out.print(DiffCommand.inWords(preview));
        boolean covered = acceptance.covers(preview, out);
        out.flush();
        if (!covered) {
            return OptionalInt.of(1);
        }
        return preview.files().isEmpty() ? OptionalInt.of(0) : OptionalInt.empty();
    }
}
