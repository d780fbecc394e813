package sandpiper.cli.service;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.server.config.DataRestoration;

@Command(
        name = "restore",
        mixinStandardHelpOptions = true,
        description = {
            "Put a backup in the place of the data of a service that is stopped.",
            "The backup is looked through first; what was there is kept beside it under another"
                    + " name."
        },
        footer = {
            "",
            "Examples:",
            "  sandpiper restore marina-2026-11-27.db --data /var/lib/sandpiper/data.db",
            "  sandpiper restore marina-2026-11-27.db --data trial/data.db"
        })
public final class RestoreCommand extends AnsweringCommand implements Callable<Integer> {
    private static final String USUAL = ".sandpiper/data.db";

    @Parameters(paramLabel = "FILE", description = "What \"backup\" wrote.")
    Path file;

    @Option(
            names = "--data",
            paramLabel = "FILE",
            description = {
                "The data file of the service, or a new one (usually SANDPIPER_DATA, or"
                        + " .sandpiper/data.db)."
            })
    @Nullable String data;

    @Override
    public Integer call() {
        var named = System.getenv("SANDPIPER_DATA");
        var target = data != null ? data : named != null ? named : USUAL;
        var restored = DataRestoration.restore(file, target);
        out().printf(
                        "%s has what %s had: release %d, %,d bytes.%n",
                        target, file, restored.release(), restored.bytes());
        if (restored.before() != null) {
            out().printf("What was there is kept as %s.%n", restored.before());
        }
        if (!Files.exists(Path.of(target + ".key"))) {
            out().printf(
                            "Sealed secrets need the key file of the service it is from, as"
                                    + " %s.key.%n",
                            target);
        }
        return say("Start the service with: sandpiper serve --data " + target);
    }
}
