package sandpiper.bench.subject;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;

/** A service in a process of its own, so that its memory and processor time are its own. */
public final class Subject implements AutoCloseable {
    private static final Pattern USED = Pattern.compile("used (\\d+)K");
    private static final List<String> OPTIONS =
            List.of("-Xmx1g", "--enable-native-access=ALL-UNNAMED");

    private final Process process;
    private final String address;

    private Subject(Process process, String address) {
        this.process = process;
        this.address = address;
    }

    /** Sandpiper on a data file. */
    public static Subject sandpiper(Path file) throws IOException {
        return start(SandpiperProcess.class, file.toString(), List.of());
    }

    /**
     * Sandpiper on a database.
     *
     * @param key the file with its key
     */
    public static Subject sandpiper(String database, Path key) throws IOException {
        return start(SandpiperProcess.class, database, List.of("-Dsandpiper.key-file=" + key));
    }

    /** The service written by hand, on its data file. */
    public static Subject control(Path file) throws IOException {
        return start(ControlProcess.class, file.toString(), List.of());
    }

    /** The service written by hand, on a database. */
    public static Subject control(String database) throws IOException {
        return start(ControlProcess.class, database, List.of());
    }

    /** Sandpiper on a data file as people start it, with its launcher. */
    public static Subject launched(Path file) throws IOException {
        return start(
                List.of("./sandpiper", "serve", "--port", "0", "--data", file.toString()),
                "Sandpiper answers at ");
    }

    private static Subject start(Class<?> main, String place, List<String> settings)
            throws IOException {
        var command = new ArrayList<String>();
        command.add(tool("java"));
        command.addAll(OPTIONS);
        command.addAll(settings);
        var more = System.getProperty("sandpiper.bench.options", "");
        if (!more.isEmpty()) {
            command.addAll(List.of(more.split(" ")));
        }
        command.add("-cp");
        command.add(System.getProperty("java.class.path"));
        command.add(main.getName());
        command.add(place);
        return start(command, "");
    }

    private static Subject start(List<String> command, String before) throws IOException {
        var process =
                new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.INHERIT).start();
        var out =
                new BufferedReader(
                        new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        for (var line = out.readLine(); line != null; line = out.readLine()) {
            if (line.startsWith(before + "http://")) {
                Thread.ofVirtual().start(() -> readOn(out));
                return new Subject(process, line.substring(before.length()));
            }
            System.err.println(line);
        }
        throw new IOException(String.join(" ", command) + " does not start.");
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

    private static String tool(String name) {
        return Path.of(System.getProperty("java.home"), "bin", name).toString();
    }

    /** Where it answers, without a path. */
    public String address() {
        return address;
    }

    /** The processor time it has taken so far. */
    public Duration processorTime() {
        return process.info().totalCpuDuration().orElse(Duration.ZERO);
    }

    /** Megabytes of the heap in use now, with what is not yet swept up. */
    public long heap() throws IOException {
        var used = USED.matcher(ask("GC.heap_info"));
        return used.find() ? Long.parseLong(used.group(1)) >> 10 : 0;
    }

    /** Megabytes of the heap in use by what is alive. */
    public long liveHeap() throws IOException {
        ask("GC.run");
        return heap();
    }

    private String ask(String what) throws IOException {
        var asking =
                new ProcessBuilder(tool("jcmd"), Long.toString(process.pid()), what)
                        .redirectErrorStream(true)
                        .start();
        return new String(asking.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    }

    @Override
    public void close() throws IOException {
        process.destroy();
        try {
            if (!process.waitFor(40, TimeUnit.SECONDS)) {
                process.destroyForcibly();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }
}
