package sandpiper.logic.function;

/**
 * A parameter of a built-in function.
 *
 * @param name as in the standard, for calls by name
 * @param optional whether it may be left out
 * @param takesNull whether null is a value for it; otherwise the call comes to null
 * @param many whether it takes all arguments that are left, as a list
 */
public record Parameter(String name, Kind kind, boolean optional, boolean takesNull, boolean many) {

    static Parameter taking(String name, Kind kind) {
        return new Parameter(name, kind, false, kind == Kind.ANY, false);
    }

    Parameter orAbsent() {
        return new Parameter(name, kind, true, takesNull, many);
    }

    Parameter orNull() {
        return new Parameter(name, kind, optional, true, many);
    }

    Parameter andMore() {
        return new Parameter(name, kind, optional, takesNull, true);
    }
}
