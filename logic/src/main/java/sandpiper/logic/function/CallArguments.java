package sandpiper.logic.function;

import java.util.List;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.FunctionValue;
import sandpiper.logic.value.Nothing;

/**
 * The arguments of one call, of the kinds its parameters take. Those that were left out are {@link
 * Nothing#NULL}.
 */
public record CallArguments(List<Object> values, CallContext run) {
    /** Whether an argument was given and is not null. */
    boolean has(int index) {
        return index < values.size() && values.get(index) != Nothing.NULL;
    }

    Object any(int index) {
        return index < values.size() ? values.get(index) : Nothing.NULL;
    }

    String text(int index) {
        return (String) values.get(index);
    }

    Decimal number(int index) {
        return (Decimal) values.get(index);
    }

    Context context(int index) {
        return (Context) values.get(index);
    }

    FunctionValue function(int index) {
        return (FunctionValue) values.get(index);
    }

    @SuppressWarnings("unchecked") // lists in values hold nothing but values
    List<Object> list(int index) {
        return (List<Object>) values.get(index);
    }

    /** Leaves a note that says why, and gives null. */
    Object fail(String why) {
        run.note(why);
        return Nothing.NULL;
    }
}
