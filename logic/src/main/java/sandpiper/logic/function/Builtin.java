package sandpiper.logic.function;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.Values;

/**
 * A built-in function.
 *
 * @param chapter under which people find it: "Text", "Lists"
 * @param describe one sentence
 * @param examples expressions with what they come to; run as tests
 */
public record Builtin(
        String name,
        String chapter,
        String describe,
        List<Overload> forms,
        List<Example> examples) {
    public Builtin {
        forms = List.copyOf(forms);
        examples = List.copyOf(examples);
    }

    /** An expression and its result as it is written. */
    public record Example(String expression, String result) {}

    static Builtin of(String name, String chapter, String describe) {
        return new Builtin(name, chapter, describe, List.of(), List.of());
    }

    Builtin form(LogicType result, Overload.Body body, FunctionParameter... parameters) {
        return form(_ -> result, body, parameters);
    }

    Builtin form(
            Function<List<LogicType>, LogicType> result,
            Overload.Body body,
            FunctionParameter... parameters) {
        var more = new ArrayList<>(forms);
        more.add(new Overload(List.of(parameters), result, body));
        return new Builtin(name, chapter, describe, more, examples);
    }

    Builtin example(String expression, String result) {
        var more = new ArrayList<>(examples);
        more.add(new Example(expression, result));
        return new Builtin(name, chapter, describe, forms, more);
    }

    /** Every way to call it, as people are shown it. */
    public List<String> written() {
        return forms.stream().map(form -> form.written(name)).toList();
    }

    /** Calls it by position, choosing the form at run time. */
    public Object call(List<Object> arguments, CallContext run) {
        for (var form : forms) {
            if (form.takes(arguments.size())) {
                var taken = take(form, arguments, run, isLast(form, arguments.size()));
                if (taken != null) {
                    return taken.isEmpty() && !arguments.isEmpty()
                            ? Nothing.NULL
                            : charged(form.body().call(new CallArguments(taken, run)), run);
                }
            }
        }
        run.note("%s cannot be called with %d arguments.".formatted(name, arguments.size()));
        return Nothing.NULL;
    }

    private static Object charged(Object result, CallContext run) {
        if (result instanceof String text) {
            run.spendText(text.length());
        }
        return result;
    }

    private boolean isLast(Overload form, int count) {
        return forms.reversed().stream()
                .filter(other -> other.takes(count))
                .findFirst()
                .filter(other -> other == form)
                .isPresent();
    }

    /**
     * The arguments as a form takes them; an empty list when the call comes to null; Java's null
     * when another form may take them.
     */
    private @org.jspecify.annotations.Nullable List<Object> take(
            Overload form, List<Object> arguments, CallContext run, boolean last) {
        var taken = new ArrayList<Object>(arguments.size());
        var parameters = form.parameters();
        for (int i = 0; i < parameters.size(); i++) {
            var parameter = parameters.get(i);
            if (parameter.many()) {
                taken.add(new ArrayList<>(arguments.subList(i, arguments.size())));
                break;
            }
            var value = i < arguments.size() ? arguments.get(i) : Nothing.NULL;
            if (value == Nothing.NULL) {
                if (i < arguments.size() && !parameter.takesNull()) {
                    if (last) {
                        run.note("%s: %s is null.".formatted(name, parameter.name()));
                        return List.of();
                    }
                    return null;
                }
                taken.add(value);
                continue;
            }
            var fit = parameter.kind().take(value);
            if (fit == null) {
                if (last) {
                    run.note(
                            "%s: %s must be %s, but is %s."
                                    .formatted(
                                            name,
                                            parameter.name(),
                                            parameter.kind().described(),
                                            Values.kind(value)));
                    return List.of();
                }
                return null;
            }
            taken.add(fit);
        }
        return taken;
    }
}
