package sandpiper.server.manage.draft;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.EventType;

/**
 * An event there is.
 *
 * @param about the object whose record it is about, or {@code null} for none
 * @param inherent whether records raise it by themselves
 */
public record EventView(
        String name,
        String packageName,
        String label,
        @Nullable String describe,
        @Nullable String about,
        boolean inherent,
        List<ParameterView> fields) {

    static EventView of(EventType event) {
        return new EventView(
                event.name(),
                event.packageName(),
                event.label(),
                event.describe(),
                event.about(),
                event.inherent(),
                ParameterView.of(event.fields()));
    }
}
