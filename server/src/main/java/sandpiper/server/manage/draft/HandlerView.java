package sandpiper.server.manage.draft;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.definition.HandlerDefinition;

/** A handler as it is written. */
public record HandlerView(
        String name,
        String label,
        @Nullable String describe,
        List<String> on,
        @Nullable String when,
        boolean within,
        boolean batch,
        String then,
        String file) {

    static HandlerView of(HandlerDefinition handler) {
        var when = handler.when();
        return new HandlerView(
                handler.name(),
                handler.label(),
                handler.describe(),
                handler.on(),
                when == null ? null : when.text(),
                handler.within(),
                handler.batch(),
                handler.then().text(),
                handler.then().origin().file());
    }
}
