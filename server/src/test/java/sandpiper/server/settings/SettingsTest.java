package sandpiper.server.settings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.boot.context.properties.bind.Binder;
import org.springframework.boot.context.properties.source.MapConfigurationPropertySource;
import org.springframework.boot.convert.ApplicationConversionService;

/** What an instance can be set to, and how what makes no sense is said. */
public class SettingsTest {
    private static final Map<String, String> USUAL =
            Map.of(
                    "sandpiper.data", "marina.db",
                    "sandpiper.address", "127.0.0.1",
                    "sandpiper.port", "8080",
                    "sandpiper.limits.body", "5MB",
                    "sandpiper.limits.depth", "50",
                    "sandpiper.limits.page", "500",
                    "sandpiper.limits.connections", "2000",
                    "sandpiper.limits.requests-at-once", "64",
                    "sandpiper.limits.waiting-changes", "10000",
                    "sandpiper.limits.read-time", "15s");

    /** The usual settings with some others. */
    public static Settings settings(Map<String, String> others) {
        var all = new HashMap<>(USUAL);
        all.putAll(others);
        return new Binder(
                        java.util.List.of(new MapConfigurationPropertySource(all)),
                        null,
                        ApplicationConversionService.getSharedInstance())
                .bind("sandpiper", Settings.class)
                .get();
    }

    private static void assertRefused(String setting, String value, String said) {
        assertThatThrownBy(() -> settings(Map.of(setting, value)))
                .rootCause()
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(said);
    }

    @Test
    void whatNobodySaysHasADefault() {
        var settings = settings(Map.of());

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
                settings(
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
    void aPublicAddressIsAnAddress() {
        assertThat(
                        settings(Map.of("sandpiper.public-address", "https://marina.example/ "))
                                .publicAddress())
                .isEqualTo("https://marina.example");
        assertRefused("sandpiper.public-address", "marina.example", "must begin with https://");
        assertRefused("sandpiper.public-address", "ftp://marina.example", "but is ftp://marina");
    }
}
