package sandpiper.client;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.math.BigDecimal;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.core.JacksonException;

class ManageClientTest {
    private HttpServer server;
    private ManageClient client;
    private String asked = "";
    private String sent = "";
    private String ifMatch = "";
    private int status = 200;
    private String answer = "{}";

    @TempDir Path folder;

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", this::handle);
        server.start();
        client =
                new ManageClient(
                        "http://127.0.0.1:" + server.getAddress().getPort(), "ann", "pässword");
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private void handle(HttpExchange exchange) throws IOException {
        asked = exchange.getRequestMethod() + " " + exchange.getRequestURI();
        sent = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
        ifMatch = String.valueOf(exchange.getRequestHeaders().getFirst("If-Match"));
        var bytes = answer.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
        try (var out = exchange.getResponseBody()) {
            out.write(bytes);
        }
    }

    @Test
    void numbersKeepAllTheirDigits() {
        answer = "{\"amount\": 12345678901234567890.123456789}";

        assertThat(client.get("/x").path("amount").decimalValue())
                .isEqualTo(new BigDecimal("12345678901234567890.123456789"));
    }

    @Test
    void anEmptyAnswerIsNull() {
        status = 204;
        answer = "";

        assertThat(client.post("/x", Map.of("a", 1)).isNull()).isTrue();
        assertThat(asked).isEqualTo("POST /x");
        assertThat(sent).isEqualTo("{\"a\":1}");
    }

    @Test
    void aChangeSaysWhichVersionItIsBasedOn() {
        client.patch("/x", Map.of(), 7L);
        assertThat(ifMatch).isEqualTo("\"7\"");

        client.patch("/x", Map.of(), null);
        assertThat(ifMatch).isEqualTo("null");
    }

    @Test
    void aRefusalHasStatusSentenceAndPlaces() {
        status = 422;
        answer =
                "{\"detail\": \"No.\", \"errors\": [{\"pointer\": \"/a/0\", \"message\":"
                        + " \"Bad.\"}]}";

        assertThatThrownBy(() -> client.put("/x", Map.of()))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> {
                            assertThat(e.status()).isEqualTo(422);
                            assertThat(e).hasMessage("No.");
                            assertThat(e.errors()).isEqualTo(List.of("a/0: Bad."));
                        });
    }

    @Test
    void whatIsNoProblemIsToldByItsStatus() {
        status = 500;
        answer = "oops";

        assertThatThrownBy(() -> client.delete("/x")).hasMessage("The server answered 500.");
    }

    @Test
    void nobodyAnsweringIsSaidWithWhatToDo() {
        server.stop(0);

        assertThatThrownBy(() -> client.get("/x"))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("No service answers at")
                .hasMessageContaining("sandpiper serve");
    }

    @Test
    void whatIsFetchedGoesIntoAFile() throws IOException {
        answer = "bytes";
        var file = folder.resolve("copy");
        Files.writeString(file, "old");

        client.download("/x", file);

        assertThat(file).hasContent("bytes");
    }

    @Test
    void aFileStaysAsItWasWhenNothingCouldBeFetched() throws IOException {
        status = 403;
        answer = "{\"detail\": \"Not granted.\"}";
        var file = Files.writeString(folder.resolve("copy"), "old");

        assertThatThrownBy(() -> client.download("/x", file)).hasMessage("Not granted.");
        assertThat(file).hasContent("old");
    }

    @Test
    void namesThatMeanSomethingInAddressesAreEscaped() {
        assertThat(ManageClient.escape("a b/c?d&é")).isEqualTo("a%20b%2Fc%3Fd%26%C3%A9");
    }

    @Test
    void aNameTwiceIsNoJson() {
        assertThatThrownBy(() -> ManageClient.members("{\"a\": 1, \"a\": 2}"))
                .isInstanceOf(JacksonException.class);
        assertThat(ManageClient.members("{\"b\": 1, \"a\": [2]}"))
                .containsExactly(Map.entry("b", 1), Map.entry("a", List.of(2)));
    }
}
