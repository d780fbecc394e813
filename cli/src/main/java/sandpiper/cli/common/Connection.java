package sandpiper.cli.common;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
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
public final class Connection {
    /** Where a demo leaves its address and sign-in for the commands that follow. */
    public static final Path FILE = Path.of(".sandpiper", "connection");

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

    @Option(
            names = "--plain-http",
            description =
                    "Send the password without encryption, also to another machine than this.")
    boolean plainHttp;

    public ManageClient open() {
        var kept = kept();
        var asked = first(server, System.getenv("SANDPIPER_SERVER"));
        var address =
                asked.or(() -> first(kept.getProperty("server")))
                        .orElse("http://127.0.0.1:8080")
                        .replaceFirst("/+$", "");
        // A password belongs to the service it was kept with, and goes to no other.
        boolean isKept = address.equals(kept.getProperty("server", "").replaceFirst("/+$", ""));
        boolean fromFile = asked.isEmpty() && isKept;
        var name =
                first(user, fromFile ? null : System.getenv("SANDPIPER_USER"))
                        .or(() -> first(isKept ? kept.getProperty("user") : null))
                        .or(() -> first(System.getenv("SANDPIPER_USER")))
                        .orElseThrow(() ->
                                new RefusedException(
                                        0,
                                        "Say who asks: --user NAME, or SANDPIPER_USER, or a file %s."
                                                .formatted(FILE),
                                        List.of()));
        boolean isKeptUser = isKept && name.equals(kept.getProperty("user"));
        requireSafe(address);
        var password =
                first(
                                isKeptUser ? kept.getProperty("password") : null,
                                fromFile ? null : System.getenv("SANDPIPER_PASSWORD"))
                        .or(() -> asked(name))
                        .orElseThrow(() ->
                                new RefusedException(
                                        0,
                                        fromFile
                                                ? "The password of %s at %s is needed; SANDPIPER_PASSWORD goes to the service of SANDPIPER_SERVER or --server alone."
                                                        .formatted(name, address)
                                                : "The password of %s is needed: set SANDPIPER_PASSWORD."
                                                        .formatted(name),
                                        List.of()));
        return new ManageClient(address, name, password);
    }

    private void requireSafe(String address) {
        var uri = URI.create(address);
        boolean here =
                uri.getHost() != null
                        && (uri.getHost().equals("localhost")
                                || uri.getHost().startsWith("127.")
                                || uri.getHost().equals("[::1]"));
        if (!plainHttp && "http".equals(uri.getScheme()) && !here) {
            throw new RefusedException(
                    0,
                    "%s is not encrypted, and the password would be read on the way: use https://, or say --plain-http."
                            .formatted(address),
                    List.of());
        }
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
            if (Files.isReadable(file) && FileOwner.isOurs(file)) {
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
