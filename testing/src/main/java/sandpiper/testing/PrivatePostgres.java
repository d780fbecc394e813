package sandpiper.testing;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * A PostgreSQL of a test's own: a cluster in a temporary folder, run by a user who may do nothing
 * else, on loopback, with what the system has installed. Each {@link #schema} of it is empty. It is
 * gone when it is closed, or when the process ends. Safe for use by many threads.
 */
public final class PrivatePostgres implements AutoCloseable {
    /** Who runs it when the tests are run by root, which it refuses. */
    private static final String UNPRIVILEGED = "postgres";

    private static final Duration LONGEST_STEP = Duration.ofSeconds(60);

    private final Path folder;
    private final Path programs;
    private final int port;
    private final boolean durable;
    private final AtomicInteger schemas = new AtomicInteger();

    private PrivatePostgres(Path folder, Path programs, int port, boolean durable) {
        this.folder = folder;
        this.programs = programs;
        this.port = port;
        this.durable = durable;
    }

    /** The one that all tests of a process share; it is started by the first that asks. */
    public static PrivatePostgres shared() {
        return Shared.POSTGRES;
    }

    private static final class Shared {
        private static final PrivatePostgres POSTGRES = start();

        static {
            Runtime.getRuntime().addShutdownHook(new Thread(POSTGRES::close));
        }
    }

    /** Makes a cluster and starts it; what it answers may be lost with the power. */
    public static PrivatePostgres start() {
        return start(false);
    }

    /** The same of one that keeps what it answers, for measuring. */
    public static PrivatePostgres durable() {
        return start(true);
    }

    private static PrivatePostgres start(boolean durable) {
        try {
            var folder = Files.createTempDirectory("sandpiper-postgres");
            Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxrwxrwx"));
            var made = new PrivatePostgres(folder, programs(), freePort(), durable);
            made.run(
                    "initdb",
                    "--pgdata=" + made.data(),
                    "--username=sandpiper",
                    "--auth=trust",
                    "--encoding=UTF8",
                    "--locale=C.UTF-8",
                    "--no-sync");
            made.up();
            return made;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * A second one that follows this one as a streaming replica. From then on this one answers when
     * both have what it answers.
     */
    public PrivatePostgres follower() {
        try {
            var other = Files.createTempDirectory("sandpiper-postgres");
            Files.setPosixFilePermissions(other, PosixFilePermissions.fromString("rwxrwxrwx"));
            var made = new PrivatePostgres(other, programs, freePort(), durable);
            made.run(
                    "pg_basebackup",
                    "--pgdata=" + made.data(),
                    "--host=127.0.0.1",
                    "--port=" + port,
                    "--username=sandpiper",
                    "--write-recovery-conf",
                    "--checkpoint=fast",
                    "--no-sync");
            made.up();
            ask("alter system set synchronous_standby_names = '*'");
            ask("select pg_reload_conf()");
            return made;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Makes a follower the one that is written to. */
    public void promote() {
        ask("select pg_promote()");
    }

    private Path data() {
        return folder.resolve("data");
    }

    private static Path programs() throws IOException {
        var all = Path.of("/usr/lib/postgresql");
        if (!Files.isDirectory(all)) {
            throw new AssertionError("PostgreSQL is not installed; ./verify installs it.");
        }
        try (var versions = Files.list(all)) {
            return versions.map(version -> version.resolve("bin"))
                    .filter(bin -> Files.isExecutable(bin.resolve("initdb")))
                    .max(Comparator.naturalOrder())
                    .orElseThrow(() -> new AssertionError("PostgreSQL's server is not installed."));
        }
    }

    private static int freePort() throws IOException {
        try (var socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }

    /** Starts it again after {@link #down}. */
    public void up() {
        var options =
                "-p %d -h 127.0.0.1 -k %s -c fsync=%s -c max_connections=200 -c shared_buffers=%s"
                        .formatted(
                                port, folder, durable ? "on" : "off", durable ? "512MB" : "64MB");
        run(
                "pg_ctl",
                "--pgdata=" + data(),
                "--log=" + folder.resolve("log"),
                "--options=" + options,
                "--wait",
                "start");
    }

    /** Stops it; with {@code hard} as if its machine had died. */
    public void down(boolean hard) {
        run(
                "pg_ctl",
                "--pgdata=" + data(),
                "--mode=" + (hard ? "immediate" : "fast"),
                "--wait",
                "stop");
    }

    private void run(String program, String... arguments) {
        var command = new ArrayList<String>();
        if ("root".equals(System.getProperty("user.name"))) {
            command.addAll(List.of("runuser", "-u", UNPRIVILEGED, "--"));
        }
        command.add(programs.resolve(program).toString());
        command.addAll(List.of(arguments));
        try {
            var said = Files.createTempFile("sandpiper-postgres", ".log");
            var process =
                    new ProcessBuilder(command)
                            .directory(folder.toFile())
                            .redirectErrorStream(true)
                            .redirectOutput(said.toFile())
                            .start();
            if (!process.waitFor(LONGEST_STEP.toSeconds(), TimeUnit.SECONDS)
                    || process.exitValue() != 0) {
                throw new AssertionError("%s: %s".formatted(command, Files.readString(said)));
            }
            Files.delete(said);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    /** The address of its database, as the driver takes it. */
    public String url() {
        return "jdbc:postgresql://127.0.0.1:%d/postgres?user=sandpiper".formatted(port);
    }

    /** Its port on loopback. */
    public int port() {
        return port;
    }

    /** A new schema with nothing in it; gives the address that leads to it. */
    public String schema() {
        var name = "s%d".formatted(schemas.incrementAndGet());
        ask("create schema " + name);
        return url() + "&currentSchema=" + name;
    }

    /** Runs a statement by its own client program. */
    public void ask(String sql) {
        run(
                "psql",
                "--host=127.0.0.1",
                "--port=" + port,
                "--username=sandpiper",
                "--dbname=postgres",
                "--no-psqlrc",
                "--quiet",
                "--set=ON_ERROR_STOP=1",
                "--command=" + sql);
    }

    @Override
    public void close() {
        if (Files.exists(data().resolve("postmaster.pid"))) {
            down(true);
        }
        try (var files = Files.walk(folder)) {
            for (var file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(file);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
