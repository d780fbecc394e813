package sandpiper.server.webhook;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.server.outgoing.Targets;

/** What the client does where no receiver of the journeys can stand in. */
class WebhookClientTest {
    private static final String PASSWORD = "tide-table";

    @TempDir private Path folder;

    /** A certificate that nobody vouches for. */
    private SSLContext selfSigned() throws Exception {
        var store = folder.resolve("keys.p12");
        var made =
                new ProcessBuilder(
                                Path.of(System.getProperty("java.home"), "bin", "keytool")
                                        .toString(),
                                "-genkeypair",
                                "-keystore",
                                store.toString(),
                                "-storetype",
                                "PKCS12",
                                "-storepass",
                                PASSWORD,
                                "-alias",
                                "books",
                                "-keyalg",
                                "EC",
                                "-dname",
                                "CN=127.0.0.1",
                                "-ext",
                                "san=ip:127.0.0.1")
                        .redirectErrorStream(true)
                        .start();
        assertThat(made.waitFor(30, TimeUnit.SECONDS)).isTrue();
        var keys = KeyStore.getInstance("PKCS12");
        try (var in = Files.newInputStream(store)) {
            keys.load(in, PASSWORD.toCharArray());
        }
        var managers = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
        managers.init(keys, PASSWORD.toCharArray());
        var context = SSLContext.getInstance("TLS");
        context.init(managers.getKeyManagers(), null, null);
        return context;
    }

    @Test
    void aCertificateNobodyVouchesForGetsNoMessage() throws Exception {
        var heard = new AtomicInteger();
        var server =
                HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setHttpsConfigurator(new HttpsConfigurator(selfSigned()));
        server.createContext(
                "/",
                exchange -> {
                    heard.incrementAndGet();
                    exchange.sendResponseHeaders(200, -1);
                    exchange.close();
                });
        server.start();
        var place = "127.0.0.1:" + server.getAddress().getPort();
        var client =
                new WebhookClient(
                        new Targets(List.of(place), "sandpiper.webhooks.allow"),
                        Duration.ofSeconds(5));
        try {
            var sent = client.post("https://" + place + "/events", Map.of(), "{}");

            assertThat(sent.delivered()).isFalse();
            assertThat(sent.status()).isZero();
            assertThat(sent.said()).startsWith("Its certificate is not right: ");
            assertThat(heard).hasValue(0);
        } finally {
            client.close();
            server.stop(0);
        }
    }
}
