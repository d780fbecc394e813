package sandpiper.model.source;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.ProblemCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.Place;
import sandpiper.model.definition.LogicText;
import sandpiper.model.yaml.TextPlaces;
import sandpiper.model.yaml.YamlNode;

/** A definition file whose form is right: reading values out of it, and reporting at its places. */
public final class Source {
    private final String file;
    private final String content;
    private final YamlNode.Mapping root;
    private final List<Diagnostic> diagnostics;

    /** A file with its text and the tree of it. */
    public Source(
            String file, String content, YamlNode.Mapping root, List<Diagnostic> diagnostics) {
        this.file = file;
        this.content = content;
        this.root = root;
        this.diagnostics = diagnostics;
    }

    /** Its path, such as {@code harbour/objects/owner.yaml}. */
    public String file() {
        return file;
    }

    /** What was found so far, in all files; takes more. */
    public List<Diagnostic> diagnostics() {
        return diagnostics;
    }

    /** What stands in it. */
    public YamlNode.Mapping root() {
        return root;
    }

    /** Reports at the value that a path of keys leads to. */
    public void error(
            ProblemCode code, String message, @Nullable String suggestion, String... path) {
        errorAt(root.placeOf(path), code, message, suggestion);
    }

    /** Reports at the key that a path leads to. */
    public void errorAtKey(
            ProblemCode code, String message, @Nullable String suggestion, String... path) {
        errorAt(root.placeOfKey(path), code, message, suggestion);
    }

    /** Warns at the value that a path of keys leads to. */
    public void warn(ProblemCode code, String message, String... path) {
        diagnostics.add(Diagnostic.warning(file, root.placeOf(path), code, message));
    }

    /** Reports at a place. */
    public void errorAt(
            Place place, ProblemCode code, String message, @Nullable String suggestion) {
        diagnostics.add(Diagnostic.error(file, place, code, message, suggestion));
    }

    /** The text behind a key, or nothing. */
    public static Optional<String> text(YamlNode.Mapping mapping, String key) {
        return mapping.get(key).map(Source::text);
    }

    /**
     * What something is called, in the main language where there are several; nothing when it does
     * not say. What is said in the others is for labels.
     */
    public static Optional<String> spoken(
            YamlNode.Mapping mapping, String key, List<String> languages) {
        return mapping.get(key).map(node -> spoken(node, languages));
    }

    /** The same of what stands behind a key. */
    public static String spoken(YamlNode node, List<String> languages) {
        return node instanceof YamlNode.Mapping byLanguage
                ? byLanguage
                        .get(languages.isEmpty() ? "en" : languages.getFirst())
                        .map(Source::text)
                        .orElse("")
                : text(node);
    }

    /** A text; empty for what is none. */
    public static String text(YamlNode node) {
        return node instanceof YamlNode.Scalar scalar ? scalar.text() : "";
    }

    /** The expression, message or steps behind a key; {@code null} when there are none. */
    public @Nullable LogicText logic(YamlNode.Mapping mapping, String key) {
        return mapping.get(key).orElse(null) instanceof YamlNode.Scalar scalar
                ? new LogicText(scalar.text(), new TextPlaces(file, content, scalar))
                : null;
    }

    /** The boolean behind a key; false when it is absent. */
    public static boolean flag(YamlNode.Mapping mapping, String key) {
        return text(mapping, key).filter("true"::equalsIgnoreCase).isPresent();
    }

    /** The whole number behind a key, or a value for when it is absent. */
    public static int whole(YamlNode.Mapping mapping, String key, int otherwise) {
        return text(mapping, key).map(Integer::parseInt).orElse(otherwise);
    }

    /** The texts behind a key that holds one text or a list of them; empty when it is absent. */
    public static List<String> texts(YamlNode.Mapping mapping, String key) {
        return mapping.get(key)
                .map(node ->
                        node instanceof YamlNode.Sequence(var items, _)
                                ? items.stream().map(Source::text).toList()
                                : List.of(text(node)))
                .orElse(List.of());
    }

    /** A condition that stands behind a key, by itself or beside what is said of it. */
    public @Nullable LogicText condition(YamlNode.Mapping mapping, String key) {
        return mapping.get(key).orElse(null) instanceof YamlNode.Mapping inner
                ? logic(inner, "that")
                : logic(mapping, key);
    }

    /** What is said when such a condition stands in the way; {@code null} when nothing is. */
    public @Nullable LogicText said(YamlNode.Mapping mapping, String key) {
        return logic(mapping(mapping, key), "say");
    }

    /** What stands behind a key whose shape is keys with values; empty when it is absent. */
    public static YamlNode.Mapping mapping(YamlNode.Mapping mapping, String key) {
        return mapping.get(key).orElse(null) instanceof YamlNode.Mapping inner
                ? inner
                : new YamlNode.Mapping(List.of(), mapping.place());
    }
}
