package sandpiper.server.service;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;

/** By what a repeated request is known. */
class IdempotencyKeyTest {
    @Test
    void aKeyOfARepeatedRequestHasALength() {
        assertThat(IdempotencyKey.checked(null)).isNull();
        assertThat(IdempotencyKey.checked("k-1")).isEqualTo("k-1");
        assertThat(IdempotencyKey.checked("x".repeat(255))).hasSize(255);
        for (var wrong : List.of("", "  ", "x".repeat(256))) {
            assertThatThrownBy(() -> IdempotencyKey.checked(wrong))
                    .hasMessageContaining("1 to 255 characters");
        }
    }
}
