package sandpiper.model.type;

import java.util.List;
import java.util.Locale;
import java.util.Locale.LanguageRange;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/**
 * The languages in which somebody asks, as of {@code Accept-Language} (RFC 9110 §12.5.4), by which
 * logic, filters and messages see a localised text. Values that are stored see the main language,
 * whoever asks. Bound to the work done for a request; immutable, and safe between threads.
 */
public final class AskedLanguages {
    /** Nobody asks, or does not say in what language: the main one. */
    public static final AskedLanguages MAIN = new AskedLanguages(List.of());

    private static final ScopedValue<AskedLanguages> CURRENT = ScopedValue.newInstance();

    private final List<LanguageRange> ranges;
    private final Map<List<String>, Integer> places = new ConcurrentHashMap<>();

    private AskedLanguages(List<LanguageRange> ranges) {
        this.ranges = ranges;
    }

    /** Of a header; the main language when it is absent or cannot be read. */
    public static AskedLanguages of(@Nullable String header) {
        if (header == null || header.isBlank()) {
            return MAIN;
        }
        try {
            return new AskedLanguages(LanguageRange.parse(header));
        } catch (IllegalArgumentException _) {
            return MAIN;
        }
    }

    /** Those of the request that is worked on; the main language outside of one. */
    public static AskedLanguages current() {
        return CURRENT.orElse(MAIN);
    }

    /** The place of the language that fits best, by lookup (RFC 4647 §3.4); 0 when none does. */
    public int place(List<String> languages) {
        return ranges.isEmpty() || languages.size() < 2
                ? 0
                : places.computeIfAbsent(languages, this::lookUp);
    }

    private int lookUp(List<String> languages) {
        var found = Locale.lookupTag(ranges, languages);
        for (int i = 0; i < languages.size(); i++) {
            if (languages.get(i).equalsIgnoreCase(found)) {
                return i;
            }
        }
        return 0;
    }

    /** Does something in these languages. */
    public <T, X extends Throwable> T in(ScopedValue.CallableOp<? extends T, X> work) throws X {
        return current() == this ? work.call() : ScopedValue.where(CURRENT, this).call(work);
    }
}
