package sandpiper.server.settings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** What an instance can be set to, and how what makes no sense is said. */
class SettingsTest {
    private static void assertRefused(String setting, String value, String said) {
        assertThatThrownBy(() -> SomeSettings.with(Map.of(setting, value)))
                .rootCause()
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(said);
    }

    @Test
    void whatNobodySaysHasADefault() {
        var settings = SomeSettings.with(Map.of());

        assertThat(settings.key()).isEqualTo(Path.of("marina.db.key"));
        assertThat(settings.firstPassword()).isEmpty();
        assertThat(settings.fresh()).isFalse();
        assertThat(settings.cors().origins()).isEmpty();
        assertThat(settings.webhooks().timeout()).isEqualTo(Duration.ofSeconds(10));
        assertThat(settings.tracing().endpoint()).isNull();
        assertThat(settings.limits().callsPerMinute()).isZero();
    }

    @Test
    void listsTimesAndSizesAreRead() {
        var settings =
                SomeSettings.with(
                        Map.of(
                                "sandpiper.webhooks.allow", "books.example:8443, 127.0.0.1 ,",
                                "sandpiper.webhooks.retries", "1s,5m",
                                "sandpiper.limits.body", "1MB",
                                "sandpiper.new", "true",
                                "sandpiper.key-file", "keys/marina.key"));

        assertThat(settings.webhooks().allow()).containsExactly("books.example:8443", "127.0.0.1");
        assertThat(settings.webhooks().retries())
                .containsExactly(Duration.ofSeconds(1), Duration.ofMinutes(5));
        assertThat(settings.limits().body().toBytes()).isEqualTo(1 << 20);
        assertThat(settings.fresh()).isTrue();
        assertThat(settings.key()).isEqualTo(Path.of("keys/marina.key"));
    }

    @Test
    void limitsThatMakeNoSenseAreSaidByName() {
        assertRefused(
                "sandpiper.limits.body",
                "10B",
                "sandpiper.limits.body must be from 65,536 to 1,073,741,823, but is 10.");
        assertRefused("sandpiper.limits.depth", "0", "limits.depth must be from 5");
        assertRefused("sandpiper.limits.page", "0", "limits.page must be from 1");
        assertRefused("sandpiper.limits.requests-at-once", "0", "requests-at-once must be from 1");
        assertRefused("sandpiper.limits.waiting-changes", "-1", "waiting-changes must be from 1");
        assertRefused("sandpiper.limits.read-time", "0s", "read-time must be from 1");
        assertRefused("sandpiper.webhooks.timeout", "0s", "webhooks.timeout must be from 1");
        assertRefused("sandpiper.port", "70000", "port must be from 0 to 65,535");
    }

    @Test
    void whatWouldLetNothingThroughIsRefused() {
        for (var setting : List.of("sandpiper.webhooks.allow", "sandpiper.connections.allow")) {
            assertRefused(
                    setting,
                    "127.0.0.1, http://127.0.0.1:8090",
                    setting
                            + " lists host or host:port, as in 127.0.0.1:8090, but has"
                            + " http://127.0.0.1:8090.");
            assertRefused(setting, "books.example/in", "but has books.example/in.");
            assertThat(SomeSettings.with(Map.of(setting, "[::1]:8090, a_b.example"))).isNotNull();
        }
        assertRefused("sandpiper.cors.origins", "booking.example", "as in https://booking.example");
        assertRefused("sandpiper.cors.origins", "https://booking.example/", "lists origins");
    }

    @Test
    void aPublicAddressIsAnAddress() {
        assertThat(
                        SomeSettings.with(
                                        Map.of(
                                                "sandpiper.public-address",
                                                "https://marina.example/ "))
                                .publicAddress())
                .isEqualTo("https://marina.example");
        assertRefused("sandpiper.public-address", "marina.example", "must begin with https://");
        assertRefused("sandpiper.public-address", "ftp://marina.example", "but is ftp://marina");
    }
}
