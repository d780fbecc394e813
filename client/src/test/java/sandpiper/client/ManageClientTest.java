package sandpiper.client;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.math.BigDecimal;
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
    private ScriptedServer server;
    private ManageClient client;

    @TempDir Path folder;

    @BeforeEach
    void start() throws IOException {
        server = new ScriptedServer();
        client = server.client("pässword");
    }

    @AfterEach
    void stop() {
        server.close();
    }

    @Test
    void numbersKeepAllTheirDigits() {
        server.answers("{\"amount\": 12345678901234567890.123456789}");

        assertThat(client.get("/x").path("amount").decimalValue())
                .isEqualTo(new BigDecimal("12345678901234567890.123456789"));
    }

    @Test
    void anEmptyAnswerIsNull() {
        server.answers(204, "");

        assertThat(client.post("/x", Map.of("a", 1)).isNull()).isTrue();
        assertThat(server.taken())
                .containsExactly(new ScriptedServer.Sent("POST", "/x", "{\"a\":1}", "null"));
    }

    @Test
    void aChangeSaysWhichVersionItIsBasedOn() {
        client.patch("/x", Map.of(), 7L);
        client.patch("/x", Map.of(), null);

        assertThat(server.taken())
                .extracting(ScriptedServer.Sent::ifMatch)
                .containsExactly("\"7\"", "null");
    }

    @Test
    void aRefusalHasStatusSentenceAndPlaces() {
        server.answers(
                422,
                "{\"detail\": \"No.\", \"errors\": [{\"pointer\": \"/a/0\", \"message\":"
                        + " \"Bad.\"}]}");

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
        server.answers(500, "oops");

        assertThatThrownBy(() -> client.delete("/x")).hasMessage("The server answered 500.");
    }

    @Test
    void nobodyAnsweringIsSaidWithWhatToDo() {
        server.close();

        assertThatThrownBy(() -> client.get("/x"))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("No service answers at")
                .hasMessageContaining("sandpiper serve");
    }

    @Test
    void whatIsFetchedGoesIntoAFile() throws IOException {
        server.answers("bytes");
        var file = folder.resolve("copy");
        Files.writeString(file, "old");

        client.download("/x", file);

        assertThat(file).hasContent("bytes");
    }

    @Test
    void aFileStaysAsItWasWhenNothingCouldBeFetched() throws IOException {
        server.answers(403, "{\"detail\": \"Not granted.\"}");
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
