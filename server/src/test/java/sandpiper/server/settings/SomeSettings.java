package sandpiper.server.settings;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.boot.context.properties.bind.Binder;
import org.springframework.boot.context.properties.source.MapConfigurationPropertySource;
import org.springframework.boot.convert.ApplicationConversionService;

/** Settings for tests, read as those of an instance are. */
public final class SomeSettings {
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
    public static Settings with(Map<String, String> others) {
        var all = new HashMap<>(USUAL);
        all.putAll(others);
        return new Binder(
                        List.of(new MapConfigurationPropertySource(all)),
                        null,
                        ApplicationConversionService.getSharedInstance())
                .bind("sandpiper", Settings.class)
                .get();
    }

    private SomeSettings() {}
}
