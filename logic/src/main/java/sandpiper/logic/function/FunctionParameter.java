package sandpiper.logic.function;

/**
 * A parameter of a built-in function.
 *
 * @param name as in the standard, for calls by name
 * @param optional whether it may be left out
 * @param takesNull whether null is a value for it; otherwise the call comes to null
 * @param many whether it takes all arguments that are left, as a list
 */
public record FunctionParameter(
        String name, ParameterKind kind, boolean optional, boolean takesNull, boolean many) {

    static FunctionParameter taking(String name, ParameterKind kind) {
        return new FunctionParameter(name, kind, false, kind == ParameterKind.ANY, false);
    }

    FunctionParameter orAbsent() {
        return new FunctionParameter(name, kind, true, takesNull, many);
    }

    FunctionParameter orNull() {
        return new FunctionParameter(name, kind, optional, true, many);
    }

    FunctionParameter andMore() {
        return new FunctionParameter(name, kind, optional, takesNull, true);
    }
}
