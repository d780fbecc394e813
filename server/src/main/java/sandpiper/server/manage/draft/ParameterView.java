package sandpiper.server.manage.draft;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.change.TypeWords;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.ValueType;

/**
 * What a function takes, or an event tells.
 *
 * @param typeWords its type in full: "a list of decimals with 2 places"
 * @param list whether there are many of them
 * @param field how a single value is entered, or {@code null} for a context
 * @param entries what a context has; otherwise empty
 */
public record ParameterView(
        String name,
        String label,
        @Nullable String describe,
        boolean required,
        String typeWords,
        boolean list,
        @Nullable FieldView field,
        List<ParameterView> entries) {

    static List<ParameterView> of(ValueType.Group group) {
        return group.entries().stream().map(ParameterView::of).toList();
    }

    private static ParameterView of(Parameter parameter) {
        var type = parameter.type();
        var item = type instanceof ValueType.Many(var inner) ? inner : type;
        return new ParameterView(
                parameter.name(),
                parameter.label(),
                parameter.describe(),
                parameter.required(),
                words(type),
                type instanceof ValueType.Many,
                item instanceof ValueType.Single(var field) ? FieldView.of(field) : null,
                item instanceof ValueType.Group group ? of(group) : List.of());
    }

    /** A type in words, as people say it. */
    static String words(ValueType type) {
        return switch (type) {
            case ValueType.Single(var field) -> TypeWords.of(field.type());
            case ValueType.Many(var item) -> "list of " + words(item);
            case ValueType.Group group -> "context (" + String.join(", ", group.names()) + ")";
        };
    }
}
