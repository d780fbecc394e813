package sandpiper.e2e;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import sandpiper.cli.Main;
import sandpiper.demo.Demo;

/**
 * A command against a service of a test, as the launcher would run it but in this process, which
 * saves a second each. {@link CommandLineTest} starts some as people do.
 */
final class CommandRun {
    private static final String HOME = "user.home";

    private CommandRun() {}

    /** What it prints, errors too, and a last line with its exit code. */
    static synchronized String of(ServiceProcess service, String... words) {
        var before = System.getProperty(HOME);
        try {
            System.setProperty(HOME, home(service).toString());
            var text = new StringWriter();
            var out = new PrintWriter(text, true);
            int code = Main.run(out, words);
            return "%sexit %d%n".formatted(text, code);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            System.setProperty(HOME, before);
        }
    }

    /** A home folder that knows the service. */
    private static Path home(ServiceProcess service) throws IOException {
        var home = Files.createTempDirectory("sandpiper-home");
        var file = home.resolve(".sandpiper").resolve("connection");
        Files.createDirectories(file.getParent());
        Files.writeString(
                file,
                "server=%s%nuser=%s%npassword=%s%n"
                        .formatted(service.address(), Demo.ADMIN, Demo.PASSWORD));
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
        return home;
    }
}
