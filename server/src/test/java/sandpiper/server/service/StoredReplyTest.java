package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class StoredReplyTest {
    @Test
    void anAnswerCanBeKeptAndGivenAgain() {
        var answer = new StoredReply(201, "/api/x/v1/y/N%2F1", "\"1\"", "{\"a\":\"\\u26f5\"}");

        assertThat(StoredReply.read(answer.write())).isEqualTo(answer);
        assertThat(answer.headers())
                .containsEntry("Location", "/api/x/v1/y/N%2F1")
                .containsEntry("ETag", "\"1\"");
    }

    /** What a batch came to can be longer than any request may be. */
    @Test
    void aLongAnswerIsGivenAgainWhole() {
        var answer = new StoredReply(200, null, null, "x".repeat(6 << 20));

        assertThat(StoredReply.read(answer.write())).isEqualTo(answer);
    }
}
