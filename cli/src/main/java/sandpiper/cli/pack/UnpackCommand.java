package sandpiper.cli.pack;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.draft.DiffCommand;
import sandpiper.client.RefusedException;

@Command(
        name = "unpack",
        mixinStandardHelpOptions = true,
        description = {
            "Take a packed package into the draft of a service, in the place of what was there.",
            "It is refused, and nothing taken in, when it is not whole, was altered, needs what is"
                    + " not there, or would make definitions wrong that are built on it."
        },
        footer = {"", "Example:", "  sandpiper unpack gullhaven-0.1.zip"})
public final class UnpackCommand extends AnsweringCommand implements Callable<Integer> {
    @Mixin Connection connection;

    @Parameters(paramLabel = "FILE", description = "What \"pack\" wrote.")
    Path file;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new RefusedException(0, "There is no file %s.".formatted(file), List.of());
        }
        var draft = connection.open().draft();
        var unpacked = draft.unpack(Files.readAllBytes(file));
        if (json) {
            return sayJson(unpacked);
        }
        var came = unpacked.value();
        out().println(
                        "%s %s%s, %s."
                                .formatted(
                                        came.name(),
                                        came.version(),
                                        came.before() == null
                                                        || came.before().equals(came.version())
                                                ? ""
                                                : " in the place of " + came.before(),
                                        came.signer() == null
                                                ? "not signed"
                                                : "signed with key " + came.signer()));
        came.added().forEach(path -> out().println("added    " + path));
        came.changed().forEach(path -> out().println("changed  " + path));
        came.removed().forEach(path -> out().println("removed  " + path));
        var preview = draft.preview().value();
        out().print(DiffCommand.inWords(preview));
        return preview.files().isEmpty()
                ? 0
                : say("It is in the draft; \"sandpiper release\" makes it live.");
    }
}
