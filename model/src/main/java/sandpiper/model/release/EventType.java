package sandpiper.model.release;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.LogicType;

/**
 * A named, typed fact.
 *
 * @param name as logic and subscribers write it: {@code StayEnded}, {@code Stay.created}
 * @param describe what has happened, or {@code null}
 * @param about name of the object whose record it is about, or {@code null} when it is about none
 * @param fields what it tells
 * @param inherent whether every record of the object raises it by itself
 */
public record EventType(
        String name,
        String packageName,
        String label,
        @Nullable String describe,
        @Nullable String about,
        ValueType.Group fields,
        boolean inherent) {

    /** Its name among all names there are, as CloudEvents wants it. */
    public String written() {
        return packageName + "." + name;
    }

    /** What it tells, as the language sees it. */
    public LogicType.ContextOf logicType(Release release) {
        return (LogicType.ContextOf) fields.logicType(release);
    }

    /** Names of what it tells. */
    public List<String> names() {
        return fields.names();
    }
}
