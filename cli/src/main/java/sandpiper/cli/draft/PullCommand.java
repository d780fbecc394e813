package sandpiper.cli.draft;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Plural;
import sandpiper.client.RefusedException;

@Command(
        name = "pull",
        mixinStandardHelpOptions = true,
        description = "Write the draft of a service into a folder.",
        footer = {"", "Example:", "  sandpiper pull packages --package gullhaven"})
public final class PullCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(paramLabel = "FOLDER", description = "The folder that shall hold the packages.")
    Path folder;

    @Option(names = "--package", paramLabel = "NAME", description = "Only this package.")
    @org.jspecify.annotations.Nullable
    String only;

    @Option(names = "--overwrite", description = "Replace files that differ.")
    boolean overwrite;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        var root = folder.toAbsolutePath().normalize();
        int written = 0;
        for (var file : connection.open().draft().draft().files()) {
            var path = file.path();
            var text = file.text();
            if (only != null && !path.startsWith(only + "/")) {
                continue;
            }
            var target = root.resolve(path).normalize();
            if (!target.startsWith(root)) {
                throw new RefusedException(
                        0,
                        "%s leads out of the folder; nothing more was written.".formatted(path),
                        List.of());
            }
            if (Files.exists(target) && Files.readString(target).equals(text)) {
                continue;
            }
            if (Files.exists(target) && !overwrite) {
                throw new RefusedException(
                        0,
                        "%s differs from the draft; --overwrite replaces it.".formatted(target),
                        List.of());
            }
            Files.createDirectories(target.getParent());
            Files.writeString(target, text);
            out.println("wrote " + path);
            written++;
        }
        out.println(written == 0 ? "Nothing differs." : Plural.of(written, "file") + " written.");
        out.flush();
        return 0;
    }
}
