package sandpiper.model.release;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.model.type.ParsedValue;

/**
 * The natural key of a record as one text, as it stands in addresses. The values of a key of
 * several fields have commas between them; a comma or backslash inside a value has a backslash
 * before it.
 */
public final class KeyText {
    private KeyText() {}

    /** Writes the values of a key, which are in stored form. */
    public static String write(ObjectType object, List<? extends @Nullable Object> values) {
        var fields = object.keyFields();
        var texts = new ArrayList<String>();
        for (int i = 0; i < fields.size(); i++) {
            var value = values.get(i);
            texts.add(value == null ? "" : fields.get(i).type().writeText(value));
        }
        return join(texts);
    }

    /** Writes the values of a key, each of which is a text already. */
    public static String join(List<String> values) {
        return values.size() == 1
                ? values.getFirst()
                : String.join(
                        ",",
                        values.stream()
                                .map(text -> text.replace("\\", "\\\\").replace(",", "\\,"))
                                .toList());
    }

    /**
     * Reads the values of a key in stored form, or nothing when the text is no key of this object.
     */
    public static Optional<List<Object>> read(ObjectType object, String text) {
        var fields = object.keyFields();
        if (fields.isEmpty() || text.isEmpty()) {
            return Optional.empty();
        }
        var texts = fields.size() == 1 ? List.of(text) : split(text);
        if (texts.size() != fields.size()) {
            return Optional.empty();
        }
        var values = new ArrayList<>();
        for (int i = 0; i < fields.size(); i++) {
            if (!(fields.get(i).type().readText(texts.get(i))
                    instanceof ParsedValue.Taken(var value))) {
                return Optional.empty();
            }
            values.add(value);
        }
        return Optional.of(values);
    }

    private static List<String> split(String text) {
        var texts = new ArrayList<String>();
        var current = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '\\' && i + 1 < text.length()) {
                current.append(text.charAt(++i));
            } else if (c == ',') {
                texts.add(current.toString());
                current.setLength(0);
            } else {
                current.append(c);
            }
        }
        texts.add(current.toString());
        return texts;
    }
}
