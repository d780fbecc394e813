package sandpiper.model.change;

import java.util.stream.Collectors;
import sandpiper.model.release.EventType;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.ValueType;

/** What callers see of functions and hear of events, as text to compare. */
final class CallOutline {
    private CallOutline() {}

    static String of(ObjectFunctionType function) {
        var definition = function.definition();
        var returns = definition.returns();
        return "%s %s %s"
                .formatted(
                        function.written(),
                        of(definition.parameters()),
                        returns == null ? "" : of(returns));
    }

    static String of(EventType event) {
        return "%s %s".formatted(event.written(), of(event.fields()));
    }

    private static String of(ValueType type) {
        return switch (type) {
            case ValueType.Single(var field) -> TypeWords.of(field.type());
            case ValueType.Many(var item) -> "list of " + of(item);
            case ValueType.Group(var entries) ->
                    entries.stream()
                            .map(one ->
                                    "%s%s %s"
                                            .formatted(
                                                    one.name(),
                                                    one.required() ? "!" : "",
                                                    of(one.type())))
                            .collect(Collectors.joining(", ", "(", ")"));
        };
    }
}
