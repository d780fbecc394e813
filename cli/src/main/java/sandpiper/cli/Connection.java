package sandpiper.cli;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;

/**
 * Which service is meant and who asks: from options, else the environment, else the file {@code
 * .sandpiper/connection} here or in the home folder. A password is never an option, since command
 * lines can be seen by others.
 */
final class Connection {
    /** Where a demo leaves its address and sign-in for the commands that follow. */
    static final Path FILE = Path.of(".sandpiper", "connection");

    @Option(
            names = "--server",
            paramLabel = "ADDRESS",
            description = "The service, such as http://127.0.0.1:8080.")
    @Nullable String server;

    @Option(
            names = "--user",
            paramLabel = "NAME",
            description = "Who asks. The password is read from SANDPIPER_PASSWORD or asked for.")
    @Nullable String user;

    ManageClient open() {
        var kept = kept();
        var address =
                first(server, System.getenv("SANDPIPER_SERVER"), kept.getProperty("server"))
                        .orElse("http://127.0.0.1:8080");
        var name =
                first(user, System.getenv("SANDPIPER_USER"), kept.getProperty("user"))
                        .orElseThrow(() ->
                                new RefusedException(
                                        0,
                                        "Say who asks: --user NAME, or SANDPIPER_USER, or a file %s."
                                                .formatted(FILE),
                                        List.of()));
        var password =
                first(System.getenv("SANDPIPER_PASSWORD"), kept.getProperty("password"))
                        .or(() -> asked(name))
                        .orElseThrow(() ->
                                new RefusedException(
                                        0,
                                        "The password of %s is needed: set SANDPIPER_PASSWORD."
                                                .formatted(name),
                                        List.of()));
        return new ManageClient(address.replaceFirst("/+$", ""), name, password);
    }

    private static Optional<String> first(@Nullable String... choices) {
        for (var choice : choices) {
            if (choice != null && !choice.isBlank()) {
                return Optional.of(choice);
            }
        }
        return Optional.empty();
    }

    private static Optional<String> asked(String name) {
        var console = System.console();
        if (console == null || !console.isTerminal()) {
            return Optional.empty();
        }
        var typed = console.readPassword("Password of %s: ", name);
        return typed == null ? Optional.empty() : Optional.of(new String(typed));
    }

    private static Properties kept() {
        var kept = new Properties();
        for (var file : List.of(FILE, Path.of(System.getProperty("user.home")).resolve(FILE))) {
            if (Files.isReadable(file)) {
                try (var reader = Files.newBufferedReader(file)) {
                    kept.load(reader);
                    return kept;
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            }
        }
        return kept;
    }
}
