package sandpiper.logic.value;

import java.util.List;

/** A function that is itself a value: one written with {@code function}, or a built-in one. */
public interface FunctionValue {
    /** Names of the parameters, in order; empty too when any number is taken. */
    List<String> parameters();

    /** Calls it; a call that cannot be worked out comes to {@link Nothing#NULL}. */
    Object call(List<Object> arguments);
}
