package sandpiper.engine.outside;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import sandpiper.model.connection.ConnectionType;

/**
 * A question to an outside service.
 *
 * @param name of the lookup or call
 * @param arguments plain values: texts, numbers, booleans; {@code null} for one that is left out
 * @param occurrence tells apart calls of the same work that are the same but change something
 *     outside each; 0 for what only reads
 */
public record Ask(
        ConnectionType connection,
        Kind kind,
        String name,
        List<@Nullable Object> arguments,
        int occurrence) {
    /** What is asked for. */
    public enum Kind {
        /** Entries of a lookup; its argument is what somebody types, empty for all. */
        ENTRIES,
        /** One entry of a lookup; its argument is the code. */
        ENTRY,
        /** What a call gives. */
        CALL
    }

    public Ask {
        arguments = Collections.unmodifiableList(new ArrayList<>(arguments));
    }

    /** For people: {@code tide-table.rate(USD, 2026-05-01)}. */
    public String written() {
        return "%s.%s(%s)"
                .formatted(
                        connection.name(),
                        name,
                        arguments.stream()
                                .map(one -> one == null ? "" : String.valueOf(one))
                                .collect(Collectors.joining(", ")));
    }

    /** By which an answer is kept. */
    String key() {
        return arguments.stream()
                .map(one ->
                        one == null
                                ? "-"
                                : one.getClass().getSimpleName().charAt(0)
                                        + String.valueOf(one).length()
                                        + ":"
                                        + one)
                .collect(Collectors.joining(" ", kind + " " + name + " ", ""));
    }
}
