package sandpiper.logic.function;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** All built-in functions by name. */
public final class Builtins {
    private static final Map<String, Builtin> BY_NAME = byName();

    private Builtins() {}

    private static Map<String, Builtin> byName() {
        var all = new ArrayList<Builtin>();
        all.addAll(ConversionFunctions.ALL);
        all.addAll(BooleanFunctions.ALL);
        all.addAll(TextFunctions.ALL);
        all.addAll(NumberFunctions.ALL);
        all.addAll(ListFunctions.ALL);
        all.addAll(AggregateFunctions.ALL);
        all.addAll(ContextFunctions.ALL);
        all.addAll(AmountFunctions.ALL);
        all.addAll(TemporalFunctions.ALL);
        all.addAll(RangeFunctions.ALL);
        var map = new LinkedHashMap<String, Builtin>();
        all.forEach(function -> map.put(function.name(), function));
        return map;
    }

    public static Optional<Builtin> find(String name) {
        return Optional.ofNullable(BY_NAME.get(name));
    }

    /** In the order of the guide: by chapter. */
    public static Collection<Builtin> all() {
        return BY_NAME.values();
    }

    public static List<String> names() {
        return List.copyOf(BY_NAME.keySet());
    }
}
