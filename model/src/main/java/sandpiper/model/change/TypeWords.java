package sandpiper.model.change;

import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;

/**
 * Says a field type in a few words: "text up to 60", "decimal with 2 places", "reference to Owner".
 */
public final class TypeWords {
    private TypeWords() {}

    /** The type with what sets it apart from others of its keyword. */
    public static String of(FieldType type) {
        return switch (type) {
            case FieldType.Reference reference -> "reference to " + reference.to();
            case TextType text when text.keyword() == TypeKeyword.TEXT -> text(text);
            case NumberType number when number.keyword() == TypeKeyword.AMOUNT ->
                    "amount in %s with %s".formatted(number.currency(), places(number.scale()));
            case NumberType number when number.keyword() != TypeKeyword.INTEGER ->
                    "%s with %s".formatted(number.keyword().word(), places(number.scale()));
            case MoneyType money -> "amount in the record's currency with " + places(money.scale());
            case ChoiceType choice -> "choice of " + String.join(", ", choice.choices().codes());
            case OutsideChoiceType outside -> "choice from " + outside.lookup();
            case FileType file -> "file, " + file.taken();
            default -> type.keyword().word();
        };
    }

    private static String places(int scale) {
        return scale == 1 ? "1 place" : scale + " places";
    }

    private static String text(TextType text) {
        var words =
                new StringBuilder(text.isLocalised() ? "localised text" : "text")
                        .append(" up to ")
                        .append(text.length());
        if (text.isLocalised()) {
            words.append(" in ").append(String.join(", ", text.languages()));
        }
        var pattern = text.pattern();
        if (pattern != null) {
            words.append(" of the form ").append(pattern.pattern());
        }
        return words.toString();
    }
}
