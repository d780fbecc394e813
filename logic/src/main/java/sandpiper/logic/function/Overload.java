package sandpiper.logic.function;

import java.util.List;
import java.util.function.Function;
import sandpiper.logic.type.LogicType;

/**
 * One way to call a function.
 *
 * @param result the result's type from those of the arguments
 */
public record Overload(
        List<FunctionParameter> parameters,
        Function<List<LogicType>, LogicType> result,
        Body body) {
    public Overload {
        parameters = List.copyOf(parameters);
    }

    /** What a function does with arguments of the right kinds. */
    @FunctionalInterface
    public interface Body {
        Object call(CallArguments arguments);
    }

    /** Whether this many arguments can be given by position. */
    public boolean takes(int count) {
        long needed = parameters.stream().filter(parameter -> !parameter.optional()).count();
        return count >= needed && (takesMany() || count <= parameters.size());
    }

    boolean takesMany() {
        return !parameters.isEmpty() && parameters.getLast().many();
    }

    /** Whether arguments of these names can be given. */
    public boolean takes(List<String> names) {
        var known = parameters.stream().map(FunctionParameter::name).toList();
        return known.containsAll(names)
                && parameters.stream()
                        .allMatch(parameter ->
                                parameter.optional() || names.contains(parameter.name()));
    }

    /** As people are shown it: {@code substring(string, start position, [length])}. */
    public String written(String function) {
        var names =
                parameters.stream()
                        .map(parameter ->
                                (parameter.optional()
                                                ? "[" + parameter.name() + "]"
                                                : parameter.name())
                                        + (parameter.many() ? ", ..." : ""))
                        .toList();
        return function + "(" + String.join(", ", names) + ")";
    }
}
