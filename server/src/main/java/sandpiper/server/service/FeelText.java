package sandpiper.server.service;

import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import sandpiper.model.type.TextType;
import sandpiper.server.json.NumberText;

/** Values from other languages as FEEL literals. */
public final class FeelText {
    private FeelText() {}

    /** A text in quotes, whatever stands in it. */
    public static String quoted(String text) {
        return '"'
                + text.replace("\\", "\\\\")
                        .replace("\"", "\\\"")
                        .replace("\n", "\\n")
                        .replace("\r", "\\r")
                        .replace("\t", "\\t")
                + '"';
    }

    /**
     * A condition that one of several texts has a word in it, in capital or small letters.
     *
     * @param fields paths to texts, at least one; an empty one has no word in it
     */
    public static String anyHas(List<String> fields, String word) {
        var wanted = quoted(word.toLowerCase(Locale.ROOT));
        return "("
                + String.join(
                        " or ",
                        fields.stream()
                                .map(name ->
                                        "(%s != null and contains(lower case(%s), %s))"
                                                .formatted(name, name, wanted))
                                .toList())
                + ")";
    }

    /** The paths to a text: to each of its languages when it has several. */
    public static Stream<String> texts(String path, TextType type) {
        return type.isLocalised()
                ? type.languages().stream().map(language -> path + "." + language)
                : Stream.of(path);
    }

    /** A literal of a function that reads text: {@code date("2026-05-01")}. */
    public static String made(String function, String text) {
        return "%s(%s)".formatted(function, quoted(text));
    }

    /**
     * A number in full.
     *
     * @throws NumberFormatException when it is none, or would be a text out of all proportion
     */
    public static String number(String text) {
        return NumberText.read(text).toPlainString();
    }
}
