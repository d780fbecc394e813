package sandpiper.server.manage.draft;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.change.TypeWords;
import sandpiper.model.layout.Labels;
import sandpiper.model.release.Field;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.TextType;

/**
 * A field with all that a form needs. {@code type} is the word of definition files, {@code
 * typeWords} says it in full.
 *
 * @param list of a choice, the name of its list
 * @param lookup of a choice whose codes come from outside, the lookup of a connection
 * @param accepts of a file, the media types that are taken; empty for any
 * @param largest of a file, bytes it may have
 * @param comesFrom where a field that a route made has its value from
 */
public record FieldView(
        String name,
        String label,
        @Nullable String describe,
        String type,
        String typeWords,
        boolean required,
        boolean unique,
        boolean readOnly,
        @Nullable String standard,
        @Nullable Integer length,
        @Nullable Integer scale,
        boolean multiline,
        List<String> languages,
        @Nullable String currency,
        List<ChoiceView> choices,
        @Nullable String list,
        @Nullable String lookup,
        List<String> accepts,
        @Nullable Long largest,
        @Nullable String to,
        @Nullable String inverse,
        @Nullable String formula,
        boolean onRead,
        boolean offers,
        RouteView.@Nullable ComesFrom comesFrom) {
    /** The same in the language that is asked for. */
    FieldView called(Labels labels, String object, String path) {
        return new FieldView(
                name,
                labels.inside(object, path, label),
                describe,
                type,
                typeWords,
                required,
                unique,
                readOnly,
                standard,
                length,
                scale,
                multiline,
                languages,
                currency,
                choices.stream()
                        .map(one ->
                                new ChoiceView(
                                        one.code(),
                                        labels.code(
                                                object,
                                                path,
                                                list == null ? "" : list,
                                                one.code(),
                                                one.label())))
                        .toList(),
                list,
                lookup,
                accepts,
                largest,
                to,
                inverse,
                formula,
                onRead,
                offers,
                comesFrom);
    }

    FieldView onlySeen() {
        return new FieldView(
                name, label, describe, type, typeWords, required, unique, true, standard, length,
                scale, multiline, languages, currency, choices, list, lookup, accepts, largest, to,
                inverse, formula, onRead, offers, comesFrom);
    }

    /** A field as it is declared, in the language its package is written in. */
    static FieldView of(Field field) {
        var type = field.type();
        return new FieldView(
                field.name(),
                field.label(),
                field.describe(),
                type.keyword().word(),
                TypeWords.of(type),
                field.required(),
                field.unique(),
                field.readOnly(),
                field.defaultValue() == null ? null : field.defaultValue().written(),
                type instanceof TextType text ? text.length() : null,
                scale(type),
                type instanceof TextType text && text.multiline(),
                type instanceof TextType text ? text.languages() : List.of(),
                currency(type),
                choices(type),
                type instanceof ChoiceType choice ? choice.choices().name() : null,
                type instanceof OutsideChoiceType outside ? outside.lookup() : null,
                type instanceof FileType file ? file.accepts() : List.of(),
                type instanceof FileType file ? file.largest() : null,
                type instanceof FieldType.Reference reference ? reference.to() : null,
                type instanceof FieldType.Reference reference ? reference.inverse() : null,
                field.logic().formula() == null ? null : field.logic().formula().text(),
                field.onRead(),
                field.logic().offer() != null,
                RouteView.ComesFrom.of(field));
    }

    private static @Nullable Integer scale(FieldType type) {
        return switch (type) {
            case NumberType number -> number.scale();
            case MoneyType money -> money.scale();
            default -> null;
        };
    }

    private static @Nullable String currency(FieldType type) {
        return switch (type) {
            case NumberType number -> number.currency();
            case MoneyType _ -> "record";
            default -> null;
        };
    }

    private static List<ChoiceView> choices(FieldType type) {
        return type instanceof ChoiceType choice
                ? choice.choices().labels().entrySet().stream()
                        .map(entry -> new ChoiceView(entry.getKey(), entry.getValue()))
                        .toList()
                : List.of();
    }

    /** One code of a choice. */
    record ChoiceView(String code, String label) {}
}
