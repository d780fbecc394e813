package sandpiper.server.security;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.micrometer.core.instrument.MeterRegistry;
import java.time.Duration;
import org.springframework.stereotype.Component;
import sandpiper.engine.Engine;

/**
 * Notes who signed in, who did not, and who was kept from trying on, beside the changes of access.
 * The same of the same is noted once a minute, so that whoever tries a lot does not fill the log.
 */
@Component
public class SignInLog {
    private static final Duration ONCE_IN = Duration.ofMinutes(1);
    private static final int MOST = 10_000;
    private static final int LONGEST_NAME = 60;

    private final Engine engine;
    private final MeterRegistry meters;
    private final Cache<String, Boolean> noted =
            Caffeine.newBuilder().maximumSize(MOST).expireAfterWrite(ONCE_IN).build();

    SignInLog(Engine engine, MeterRegistry meters) {
        this.engine = engine;
        this.meters = meters;
    }

    /** Notes what came of a try; nobody waits for it to be stored. */
    public void note(String name, String address, String what) {
        meters.counter("sandpiper.signins", "result", what).increment();
        var clean = clean(name);
        if (noted.asMap().putIfAbsent(what + ' ' + clean + ' ' + address, true) != null) {
            return;
        }
        engine.accounts().log().noteLater(clean, what, clean, "from " + address);
    }

    /** A name somebody typed, without what could forge a line. */
    private static String clean(String name) {
        var text = name.replaceAll("[^\\p{L}\\p{N}._@ -]", "?");
        return text.length() > LONGEST_NAME ? text.substring(0, LONGEST_NAME) + "…" : text;
    }
}
