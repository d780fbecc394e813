package sandpiper.server.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SignInFailuresTest {
    private static final Instant NOW = Instant.parse("2026-05-01T10:00:00Z");
    private final SignInFailures failures = new SignInFailures();

    private void tries(String name, String address, int times) {
        for (int i = 0; i < times; i++) {
            failures.begin(name, address, NOW);
        }
    }

    @Test
    void manyAtOnceAreMany() throws Exception {
        try (var callers = Executors.newVirtualThreadPerTaskExecutor()) {
            var all =
                    callers.invokeAll(
                            IntStream.range(0, 40)
                                    .<Callable<Boolean>>mapToObj(_ ->
                                            () -> {
                                                try {
                                                    failures.begin("ann", "10.0.0.1", NOW);
                                                    return true;
                                                } catch (RuntimeException _) {
                                                    return false;
                                                }
                                            })
                                    .toList());
            int let = 0;
            for (var one : all) {
                let += one.get() ? 1 : 0;
            }
            assertThat(let).isEqualTo(5);
        }
    }

    @Test
    void somebodyElsewhereDoesNotLockAPersonOut() {
        tries("ann", "10.0.0.9", 5);
        assertThatThrownBy(() -> failures.begin("ann", "10.0.0.9", NOW))
                .hasMessageContaining("too many wrong passwords");
        assertThatCode(() -> failures.begin("ann", "10.0.0.1", NOW)).doesNotThrowAnyException();
    }

    @Test
    void anAddressThatTriesManyNamesIsSlowedDown() {
        for (int i = 0; i < 50; i++) {
            failures.begin("name" + i, "10.0.0.9", NOW);
        }
        assertThatThrownBy(() -> failures.begin("another", "10.0.0.9", NOW))
                .hasMessageContaining("too many wrong passwords");
    }

    @Test
    void itIsOverAfterAWhileAndWhenOneIsRight() {
        tries("ann", "10.0.0.1", 5);
        assertThatCode(() -> failures.begin("ann", "10.0.0.1", NOW.plus(Duration.ofMinutes(16))))
                .doesNotThrowAnyException();
        failures.right("ann", "10.0.0.1");
        tries("ann", "10.0.0.1", 5);
    }

    @ParameterizedTest
    @CsvSource({
        "ann, password",
        "ann, Password123!",
        "ann, qwertzuiop",
        "ann, aaaaaaaaaaaa",
        "ragna, ragna-2026-x",
        "ann, 1234567890"
    })
    void whatEverybodyTriesFirstIsNoPassword(String name, String password) {
        assertThatThrownBy(() -> PasswordRules.require(name, password))
                .isInstanceOf(RuntimeException.class);
    }

    @Test
    void longPasswordsCountToTheirEnd() {
        var encoder = LongPasswords.encoder();
        var start = "\u00fc".repeat(90);
        var hash = encoder.encode(start + "a");

        assertThat(encoder.matches(start + "a", hash)).isTrue();
        assertThat(encoder.matches(start + "b", hash)).isFalse();
        assertThat(
                        encoder.matches(
                                "gullhaven",
                                "{bcrypt}"
                                        + new org.springframework.security.crypto.bcrypt
                                                        .BCryptPasswordEncoder(4)
                                                .encode("gullhaven")))
                .as("one hashed before")
                .isTrue();
    }
}
