package sandpiper.e2e;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import sandpiper.demo.Demo;

/** A command started as people start it, against a service of a test. */
final class CommandRun {
    private static final Path LAUNCHER = Path.of("..", "sandpiper").toAbsolutePath().normalize();

    private CommandRun() {}

    /** What it prints, errors too, and a last line with its exit code. */
    static String of(ServiceProcess service, String... words) {
        var command = new ArrayList<>(List.of(LAUNCHER.toString()));
        command.addAll(List.of(words));
        var builder = new ProcessBuilder(command).redirectErrorStream(true);
        builder.environment().put("SANDPIPER_SERVER", service.address());
        builder.environment().put("SANDPIPER_USER", Demo.ADMIN);
        builder.environment().put("SANDPIPER_PASSWORD", Demo.PASSWORD);
        try {
            var process = builder.start();
            var out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            if (!process.waitFor(1, TimeUnit.MINUTES)) {
                throw new AssertionError("It does not end:\n" + out);
            }
            return "%sexit %d%n".formatted(out, process.exitValue());
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }
}
