package sandpiper.server.security;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class FormTextTest {
    @Test
    void readsParameters() {
        assertThat(
                        FormText.read(
                                "grant_type=client_credentials&scope=a+b%2Fc&x="
                                        .getBytes(StandardCharsets.UTF_8)))
                .contains(Map.of("grant_type", "client_credentials", "scope", "a b/c", "x", ""));
    }

    @ParameterizedTest
    @ValueSource(strings = {"a=%FF", "a=%zz", "a=1&a=2", "a=%C3"})
    void whatIsNoFormIsNone(String body) {
        assertThat(FormText.read(body.getBytes(StandardCharsets.UTF_8))).isEmpty();
    }
}
