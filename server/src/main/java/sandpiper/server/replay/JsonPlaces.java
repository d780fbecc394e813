package sandpiper.server.replay;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.server.json.JsonReader;

/** The values of JSON by their places; those of a list share one. */
final class JsonPlaces {
    private JsonPlaces() {}

    static void read(byte[] body, Map<String, List<String>> into) {
        if (body.length > 0) {
            walk("", JsonReader.OWN.object(body), into);
        }
    }

    private static void walk(String place, @Nullable Object value, Map<String, List<String>> into) {
        switch (value) {
            case Map<?, ?> members ->
                    members.forEach((name, member) ->
                            walk(place.isEmpty() ? "" + name : place + "." + name, member, into));
            case List<?> items -> {
                ReplayedAnswer.put(into, place + "[]", items.size());
                items.forEach(item -> walk(place + "[]", item, into));
            }
            case null, default -> ReplayedAnswer.put(into, place, value);
        }
    }
}
