package sandpiper.cli.common;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The command as a process, with an environment and a folder of its own. */
class ConnectionTest {
    private static final Map<String, String> SIGNED =
            Map.of("SANDPIPER_USER", "ann", "SANDPIPER_PASSWORD", "secret-of-ann");

    @TempDir Path folder;
    private HttpServer server;
    private final List<String> heard = new ArrayList<>();

    @BeforeEach
    void listen() throws IOException {
        server = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        server.createContext(
                "/",
                exchange -> {
                    var header = exchange.getRequestHeaders().getFirst("Authorization");
                    heard.add(
                            new String(
                                    Base64.getDecoder().decode(header.substring("Basic ".length())),
                                    StandardCharsets.UTF_8));
                    var answer = "{\"version\":\"1\"}".getBytes(StandardCharsets.UTF_8);
                    exchange.sendResponseHeaders(200, answer.length);
                    exchange.getResponseBody().write(answer);
                    exchange.close();
                });
        server.start();
    }

    @AfterEach
    void end() {
        server.stop(0);
    }

    private String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    private void keep(String text, String mode) throws IOException {
        var file = folder.resolve(Connection.FILE);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString(mode));
    }

    private String status(Map<String, String> environment, String... arguments) throws Exception {
        var command =
                new ArrayList<>(
                        List.of(
                                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                                "-Duser.home=" + folder.resolve("home"),
                                "-cp",
                                System.getProperty("java.class.path"),
                                "sandpiper.cli.Main",
                                "status"));
        command.addAll(List.of(arguments));
        var builder = new ProcessBuilder(command).directory(folder.toFile());
        builder.environment().keySet().removeIf(name -> name.startsWith("SANDPIPER_"));
        builder.environment().putAll(environment);
        var process = builder.redirectErrorStream(true).start();
        process.getOutputStream().close();
        return new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    }

    @Test
    void aPasswordOfTheEnvironmentDoesNotGoWhereAFileInTheFolderSays() throws Exception {
        keep("server=" + address() + "\n", "rw-------");
        assertThat(status(SIGNED)).contains("goes to the service of SANDPIPER_SERVER or --server");
        assertThat(heard).isEmpty();

        status(SIGNED, "--server", address());
        assertThat(heard).containsExactly("ann:secret-of-ann");
    }

    @Test
    void aKeptPasswordGoesToItsOwnServiceAlone() throws Exception {
        keep("server=" + address() + "\nuser=ben\npassword=kept\n", "rw-------");
        status(Map.of());
        assertThat(heard).containsExactly("ben:kept");

        heard.clear();
        keep("server=http://127.0.0.1:1\nuser=ben\npassword=kept\n", "rw-------");
        assertThat(status(Map.of(), "--server", address(), "--user", "ben"))
                .contains("The password of ben is needed");
        assertThat(heard).isEmpty();
    }

    @Test
    void aFileThatOthersCanWriteIsNotTaken() throws Exception {
        keep("server=" + address() + "\nuser=ben\npassword=kept\n", "rw-rw-rw-");
        assertThat(status(Map.of())).contains("Say who asks");
        assertThat(heard).isEmpty();
    }

    @Test
    void withoutEncryptionNothingIsSentAway() throws Exception {
        assertThat(status(SIGNED, "--server", "http://books.example"))
                .contains("is not encrypted", "--plain-http");
    }
}
