package sandpiper.logic.check;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.syntax.TypeName;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;

/** Finds the types that are named in expressions. */
final class Types {
    private static final Map<String, LogicType> NAMED =
            Map.ofEntries(
                    Map.entry("Any", Simple.ANY),
                    Map.entry("Null", Simple.NOTHING),
                    Map.entry("string", Simple.TEXT),
                    Map.entry("number", Simple.NUMBER),
                    Map.entry("boolean", Simple.BOOLEAN),
                    Map.entry("date", Simple.DATE),
                    Map.entry("time", Simple.TIME),
                    Map.entry("date and time", Simple.DATE_TIME),
                    Map.entry("days and time duration", Simple.DURATION),
                    Map.entry("years and months duration", Simple.MONTHS),
                    Map.entry("list", new LogicType.ListOf(Simple.ANY)),
                    Map.entry("context", new LogicType.ContextOf(null)),
                    Map.entry("range", new LogicType.RangeOf(Simple.ANY)),
                    Map.entry("function", new LogicType.FunctionOf(null, Simple.ANY)));

    private Types() {}

    /** The type of a name; one that is not known is reported. */
    static LogicType of(TypeName name, Checking checking) {
        return switch (name) {
            case TypeName.Simple simple -> simple(simple, checking);
            case TypeName.Of of -> {
                var inner = of(of.inner(), checking);
                yield switch (of.name()) {
                    case "list" -> new LogicType.ListOf(inner);
                    case "range" -> new LogicType.RangeOf(inner);
                    default -> unknown(of.name(), of, checking);
                };
            }
            case TypeName.OfContext context -> {
                var entries = new LinkedHashMap<String, LogicType>();
                context.entries().forEach((key, type) -> entries.put(key, of(type, checking)));
                yield new LogicType.ContextOf(entries);
            }
            case TypeName.OfFunction function -> {
                List<LogicType> parameters =
                        function.parameters().stream().map(one -> of(one, checking)).toList();
                yield new LogicType.FunctionOf(parameters, of(function.result(), checking));
            }
        };
    }

    private static LogicType simple(TypeName.Simple simple, Checking checking) {
        @Nullable LogicType known = NAMED.get(simple.name());
        if (known != null) {
            return known;
        }
        return checking.world()
                .object(simple.name())
                .<LogicType>map(LogicType.RecordOf::new)
                .orElseGet(() -> unknown(simple.name(), simple, checking));
    }

    private static LogicType unknown(String name, TypeName at, Checking checking) {
        if (!name.isEmpty()) {
            var nearest = Nearest.to(name, NAMED.keySet()).orElse(null);
            checking.error(
                    LogicCode.UNKNOWN_TYPE,
                    at.span(),
                    "There is no type %s.".formatted(Quoted.of(name)),
                    nearest);
        }
        return Simple.ANY;
    }
}
