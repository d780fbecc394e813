package sandpiper.logic.type;

import java.util.List;
import java.util.Optional;

/** An event, as logic that raises it sees it. */
public interface EventShape {
    String name();

    /** The object whose record it is about, or nothing when it is about none. */
    Optional<RecordType> about();

    /** What it tells. */
    List<FunctionType.Parameter> values();

    /** The value of a name, or nothing. */
    default Optional<FunctionType.Parameter> value(String name) {
        return values().stream().filter(one -> one.name().equals(name)).findFirst();
    }
}
