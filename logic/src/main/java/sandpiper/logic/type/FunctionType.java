package sandpiper.logic.type;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** A function of an object, as those see it who call it. */
public interface FunctionType {
    String name();

    /** Whether it is called on a record; otherwise on the object as a whole. */
    boolean isOnRecord();

    List<Parameter> parameters();

    /** What it gives back, or {@code null} for nothing. */
    @Nullable LogicType returns();

    /** Whether it waits for an outside service whose answers are not kept, itself or by others. */
    default boolean asksAnew() {
        return false;
    }

    /** The parameter of a name, or nothing. */
    default Optional<Parameter> parameter(String parameter) {
        return parameters().stream().filter(one -> one.name().equals(parameter)).findFirst();
    }

    /** What a caller gives. */
    record Parameter(String name, LogicType type, boolean required) {}
}
