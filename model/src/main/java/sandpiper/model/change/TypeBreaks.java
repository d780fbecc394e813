package sandpiper.model.change;

import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.TextType;

/** How one type of value differs from another, from the side of those who give and get values. */
final class TypeBreaks {
    private TypeBreaks() {}

    /** How a value has another form, or {@code null} when it has not. */
    static @Nullable String otherForm(FieldType was, FieldType is) {
        if (was instanceof FieldType.Reference before && is instanceof FieldType.Reference now) {
            return before.to().equals(now.to())
                    ? null
                    : "refers to %s instead of %s".formatted(now.to(), before.to());
        }
        boolean localised =
                was instanceof TextType before
                        && is instanceof TextType now
                        && before.isLocalised() != now.isLocalised();
        boolean sameText = isText(was) && isText(is) && !localised;
        return (was.keyword() == is.keyword() || sameText) && !localised
                ? null
                : "is %s instead of %s".formatted(word(is), word(was));
    }

    private static boolean isText(FieldType type) {
        return type instanceof TextType
                || type instanceof ChoiceType
                || type instanceof OutsideChoiceType;
    }

    private static String word(FieldType type) {
        return (type instanceof TextType text && text.isLocalised() ? "localised " : "")
                + type.keyword().word();
    }

    /** How fewer values are taken than before, or {@code null} when as many are. */
    static @Nullable String narrower(FieldType was, FieldType is) {
        if (is instanceof ChoiceType now) {
            var codes = now.choices().labels().keySet();
            if (!(was instanceof ChoiceType before)) {
                return "takes only %s".formatted(String.join(", ", codes));
            }
            var gone =
                    before.choices().labels().keySet().stream()
                            .filter(code -> !codes.contains(code))
                            .toList();
            return gone.isEmpty() ? null : "no longer takes " + String.join(", ", gone);
        }
        if (is instanceof OutsideChoiceType now && !now.equals(was)) {
            return "takes only codes of " + now.lookup();
        }
        if (was instanceof TextType before && is instanceof TextType now) {
            if (now.length() < before.length()) {
                return "takes %,d characters instead of %,d"
                        .formatted(now.length(), before.length());
            }
            boolean sameForm =
                    before.keyword() == now.keyword()
                            && Objects.equals(pattern(before), pattern(now));
            boolean anyForm = now.pattern() == null && now.keyword().word().equals("text");
            return sameForm || anyForm ? null : "takes another form of text";
        }
        if (was instanceof FileType before && is instanceof FileType now) {
            return narrower(before, now);
        }
        if (was instanceof NumberType before
                && is instanceof NumberType now
                && now.scale() < before.scale()) {
            return "takes %d decimal %s instead of %d"
                    .formatted(now.scale(), now.scale() == 1 ? "place" : "places", before.scale());
        }
        return null;
    }

    private static @Nullable String narrower(FileType was, FileType is) {
        boolean allTypes =
                is.accepts().isEmpty()
                        || (!was.accepts().isEmpty() && is.accepts().containsAll(was.accepts()));
        if (!allTypes) {
            return "takes only files of " + String.join(", ", is.accepts());
        }
        return is.largest() < was.largest()
                ? "takes files of %,d bytes instead of %,d".formatted(is.largest(), was.largest())
                : null;
    }

    private static @Nullable String pattern(TextType type) {
        return type.pattern() == null ? null : type.pattern().pattern();
    }
}
