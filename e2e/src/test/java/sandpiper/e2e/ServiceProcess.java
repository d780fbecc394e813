package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import sandpiper.client.ManageClient;
import sandpiper.demo.Demo;

/** The service as a program of its own, to be treated badly. */
final class ServiceProcess implements AutoCloseable {
    private static final String ANSWERS = "Sandpiper answers at ";

    private final Process process;
    private final String address;

    private ServiceProcess(Process process, String address) {
        this.process = process;
        this.address = address;
    }

    /** Starts it on a data file, with more in its environment, and waits until it answers. */
    static ServiceProcess start(Path data, Map<String, String> environment, String... more)
            throws IOException {
        var all = new HashMap<>(environment);
        all.putIfAbsent("SANDPIPER_KEY_FILE", JourneyData.key(data));
        return start(JourneyData.of(data), StartCache.options(), all, more);
    }

    /** Starts it on a database. */
    static ServiceProcess start(String data, Map<String, String> environment, String... more)
            throws IOException {
        return start(data, StartCache.options(), environment, more);
    }

    /** The same with options of the JVM. */
    static ServiceProcess start(
            String data, List<String> options, Map<String, String> environment, String... more)
            throws IOException {
        var command =
                new ArrayList<>(
                        List.of(
                                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                                "--enable-native-access=ALL-UNNAMED",
                                "-XX:TieredStopAtLevel=1",
                                "-Xmx512m",
                                "-XX:+ExitOnOutOfMemoryError"));
        command.addAll(options);
        command.addAll(List.of("sandpiper.cli.Main", "serve", "--port", "0", "--data", data));
        command.addAll(List.of(more));
        var builder = new ProcessBuilder(command);
        builder.environment().put("SANDPIPER_FIRST_PASSWORD", Demo.PASSWORD);
        builder.environment().putAll(environment);
        var process = builder.redirectErrorStream(true).start();
        var out =
                new BufferedReader(
                        new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        var said = new StringBuilder();
        for (var line = out.readLine(); line != null; line = out.readLine()) {
            said.append(line).append('\n');
            if (line.startsWith(ANSWERS)) {
                Thread.ofVirtual().start(() -> readOn(out));
                return new ServiceProcess(process, line.substring(ANSWERS.length()));
            }
        }
        throw new AssertionError("It did not start:\n" + said);
    }

    /** What it says must be read, or it would wait to say it. */
    private static void readOn(BufferedReader out) {
        try {
            while (out.readLine() != null) {
                // nobody wants to know
            }
        } catch (IOException _) {
            // it is gone
        }
    }

    String address() {
        return address;
    }

    long pid() {
        return process.pid();
    }

    ManageClient client() {
        return new ManageClient(address, Demo.ADMIN, Demo.PASSWORD);
    }

    /** Ends it at once, as a power cut does. */
    void kill() throws InterruptedException {
        process.destroyForcibly();
        assertThat(process.waitFor(30, TimeUnit.SECONDS)).isTrue();
    }

    /** Asks it to end, and waits until it has. */
    void stop() throws InterruptedException {
        stop(40);
    }

    /** The same within a time of its own. */
    void stop(int seconds) throws InterruptedException {
        // Through the handle, which leaves what it says on its way open.
        process.toHandle().destroy();
        assertThat(process.waitFor(seconds, TimeUnit.SECONDS)).as("it ends when asked").isTrue();
    }

    @Override
    public void close() {
        process.destroyForcibly();
    }
}
