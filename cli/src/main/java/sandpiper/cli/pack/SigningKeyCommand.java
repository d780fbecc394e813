package sandpiper.cli.pack;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.FileOwner;
import sandpiper.client.RefusedException;
import sandpiper.server.pack.SigningKey;

@Command(
        name = "signing-key",
        mixinStandardHelpOptions = true,
        description = {
            "Make a key to sign packages with, in a file that only you can read.",
            "A service signs with it when SANDPIPER_PACKAGES_SIGNING_KEY names the file; others"
                    + " take only what is signed with keys whose fingerprints stand in"
                    + " SANDPIPER_PACKAGES_TRUSTED."
        },
        footer = {"", "Example:", "  sandpiper signing-key packages.key"})
public final class SigningKeyCommand extends AnsweringCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", description = "The file to write, which must not be there.")
    Path file;

    @Override
    public Integer call() throws IOException {
        if (Files.exists(file)) {
            throw new RefusedException(
                    0, "%s is there already; choose another name.".formatted(file), List.of());
        }
        FileOwner.keep(file);
        Files.writeString(file, SigningKey.made());
        return say(
                "%s has a key with the fingerprint %s."
                        .formatted(file, SigningKey.read(file).fingerprint()));
    }
}
