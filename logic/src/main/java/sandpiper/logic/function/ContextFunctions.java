package sandpiper.logic.function;

import static sandpiper.logic.function.FunctionParameter.taking;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;

/** DMN 1.5 §10.3.4.10. */
final class ContextFunctions {
    private static final String CHAPTER = "Contexts";
    private static final LogicType CONTEXT = new LogicType.ContextOf(null);

    static final List<Builtin> ALL =
            List.of(
                    Builtin.of(
                                    "get value",
                                    CHAPTER,
                                    "The value a context has under a name, or under names one in"
                                            + " another.")
                            .form(
                                    Simple.ANY,
                                    arguments -> member(arguments.any(0), arguments.text(1)),
                                    taking("m", ParameterKind.ANY),
                                    taking("key", ParameterKind.TEXT))
                            .form(
                                    Simple.ANY,
                                    ContextFunctions::nested,
                                    taking("context", ParameterKind.CONTEXT),
                                    taking("keys", ParameterKind.LIST))
                            .example("get value({a: 1, b: 2}, \"b\")", "2"),
                    Builtin.of(
                                    "get entries",
                                    CHAPTER,
                                    "The entries of a context as a list of key and value.")
                            .form(
                                    new LogicType.ListOf(CONTEXT),
                                    ContextFunctions::entries,
                                    taking("m", ParameterKind.CONTEXT))
                            .example("get entries({a: 1})", "[{key: \"a\", value: 1}]"),
                    Builtin.of(
                                    "context",
                                    CHAPTER,
                                    "A context made of entries, each with a key and a value.")
                            .form(
                                    CONTEXT,
                                    ContextFunctions::make,
                                    taking("entries", ParameterKind.LIST))
                            .example("context([{key: \"a\", value: 1}])", "{a: 1}"),
                    Builtin.of(
                                    "context put",
                                    CHAPTER,
                                    "The context with one value changed or added.")
                            .form(
                                    CONTEXT,
                                    arguments ->
                                            put(
                                                    arguments.context(0),
                                                    List.of(arguments.text(1)),
                                                    0,
                                                    arguments),
                                    taking("context", ParameterKind.CONTEXT),
                                    taking("key", ParameterKind.TEXT),
                                    taking("value", ParameterKind.ANY))
                            .form(
                                    CONTEXT,
                                    arguments ->
                                            arguments.list(1).isEmpty()
                                                    ? arguments.fail(
                                                            "context put: there is no key.")
                                                    : put(
                                                            arguments.context(0),
                                                            arguments.list(1),
                                                            0,
                                                            arguments),
                                    taking("context", ParameterKind.CONTEXT),
                                    taking("keys", ParameterKind.LIST),
                                    taking("value", ParameterKind.ANY))
                            .example("context put({a: 1}, \"b\", 2)", "{a: 1, b: 2}"),
                    Builtin.of("context merge", CHAPTER, "Several contexts in one; later ones win.")
                            .form(
                                    CONTEXT,
                                    ContextFunctions::merge,
                                    taking("contexts", ParameterKind.LIST))
                            .example("context merge([{a: 1}, {a: 2, b: 3}])", "{a: 2, b: 3}"));

    private ContextFunctions() {}

    private static Object member(Object from, String key) {
        return switch (from) {
            case Context context -> context.get(key);
            case RecordValue record -> record.read(key);
            default -> Nothing.NULL;
        };
    }

    private static Object nested(CallArguments arguments) {
        if (arguments.list(1).isEmpty()) {
            return arguments.fail("get value: there is no key.");
        }
        Object at = arguments.any(0);
        for (var key : arguments.list(1)) {
            at = key instanceof String name ? member(at, name) : Nothing.NULL;
        }
        return at;
    }

    private static Object entries(CallArguments arguments) {
        var context = arguments.context(0);
        var list = new ArrayList<Object>();
        for (var key : context.keys()) {
            var entry = new LinkedHashMap<String, Object>();
            entry.put("key", key);
            entry.put("value", context.get(key));
            list.add(new Context(entry));
        }
        return list;
    }

    private static Object make(CallArguments arguments) {
        var made = new LinkedHashMap<String, Object>();
        for (var item : arguments.list(0)) {
            if (!(item instanceof Context entry)
                    || !(entry.get("key") instanceof String key)
                    || entry.find("value") == null) {
                return arguments.fail("context: each entry needs a key that is text, and a value.");
            }
            if (made.put(key, entry.get("value")) != null) {
                return arguments.fail("context: the key %s stands there twice.".formatted(key));
            }
        }
        return new Context(made);
    }

    private static Object put(Context context, List<?> keys, int at, CallArguments arguments) {
        if (!(keys.get(at) instanceof String key)) {
            return arguments.fail("context put: every key must be text.");
        }
        Map<String, Object> copy = context.copy();
        if (at == keys.size() - 1) {
            copy.put(key, arguments.any(2));
            return new Context(copy);
        }
        if (!(context.get(key) instanceof Context inner)) {
            return arguments.fail("context put: there is no context under %s.".formatted(key));
        }
        var changed = put(inner, keys, at + 1, arguments);
        if (changed == Nothing.NULL) {
            return changed;
        }
        copy.put(key, changed);
        return new Context(copy);
    }

    private static Object merge(CallArguments arguments) {
        var merged = new LinkedHashMap<String, Object>();
        for (var item : arguments.list(0)) {
            if (!(item instanceof Context context)) {
                return arguments.fail("context merge: every item must be a context.");
            }
            merged.putAll(context.copy());
        }
        return new Context(merged);
    }
}
