package sandpiper.cli.service;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.FileOwner;
import sandpiper.client.RefusedException;

@Command(
        name = "backup",
        mixinStandardHelpOptions = true,
        description = {
            "Write a copy of everything the service holds, while it goes on.",
            "\"restore\" puts it back. Sealed secrets also need the key file that lies beside the"
                    + " service's data."
        },
        footer = {"", "Example:", "  sandpiper backup marina-2026-11-27.db"})
public final class BackupCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(paramLabel = "FILE", description = "The file to write, which must not be there.")
    Path file;

    @Override
    public Integer call() throws IOException {
        if (Files.exists(file)) {
            throw new RefusedException(
                    0, "%s is there already; choose another name.".formatted(file), List.of());
        }
        var client = connection.open();
        // Half a copy must not look like a whole one.
        var part = file.resolveSibling(file.getFileName() + ".part");
        FileOwner.keep(part);
        try {
            client.activity().backup(part);
            Files.move(part, file);
        } finally {
            Files.deleteIfExists(part);
        }
        var out = spec.commandLine().getOut();
        var files = client.activity().status().value().files();
        out.printf(
                "%s has %,d bytes%s.%n",
                file,
                Files.size(file),
                files == null || files.files() == 0
                        ? ""
                        : ", %,d of them in %,d %s of records"
                                .formatted(
                                        files.bytes(),
                                        files.files(),
                                        files.files() == 1 ? "file" : "files"));
        out.flush();
        return 0;
    }
}
