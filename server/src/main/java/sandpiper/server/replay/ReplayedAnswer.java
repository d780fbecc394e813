package sandpiper.server.replay;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * An answer as it came.
 *
 * @param contentType empty for none
 * @param location where something was made; empty for nowhere
 */
record ReplayedAnswer(int status, String contentType, String location, byte[] body) {
    private static final int BAD = 400;

    /** Whether what was asked was done. */
    boolean isGood() {
        return status < BAD;
    }

    /**
     * The values of its body by their places, such as {@code items[].fee}, in their order; of a
     * body that is neither JSON nor XML one value without a place.
     */
    Map<String, List<String>> values() {
        var values = new LinkedHashMap<String, List<String>>();
        try {
            if (contentType.contains("json")) {
                JsonPlaces.read(body, values);
                return values;
            }
            if (contentType.contains("xml")) {
                XmlPlaces.read(body, values);
                return values;
            }
        } catch (RuntimeException _) {
            // What cannot be read is compared as it is.
            values.clear();
        }
        put(values, "", new String(body, StandardCharsets.UTF_8));
        return values;
    }

    static void put(Map<String, List<String>> values, String place, @Nullable Object value) {
        values.computeIfAbsent(place, _ -> new ArrayList<>()).add(String.valueOf(value));
    }
}
