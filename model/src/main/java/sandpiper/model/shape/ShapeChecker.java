package sandpiper.model.shape;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.ProblemCode;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.Place;
import sandpiper.model.yaml.YamlNode;

/** Compares a file with its shape and reports every difference. */
public final class ShapeChecker {
    private final String file;
    private final List<Diagnostic> diagnostics;

    private ShapeChecker(String file, List<Diagnostic> diagnostics) {
        this.file = file;
        this.diagnostics = diagnostics;
    }

    /**
     * Checks a tree against a shape.
     *
     * @return the tree without what does not fit, so that reading it needs no further checks of
     *     form; or {@code null} when nothing of it fits
     */
    public static @Nullable YamlNode check(
            String file, YamlNode node, Shape shape, List<Diagnostic> diagnostics) {
        return new ShapeChecker(file, diagnostics).fit(node, shape, "this file");
    }

    private @Nullable YamlNode fit(YamlNode node, Shape shape, String what) {
        return switch (shape) {
            case Shape.Text text -> text(node, text, what);
            case Shape.Free _ -> node;
            case Shape.Flag _ ->
                    node instanceof YamlNode.Scalar(_, var kind, _, _)
                                    && kind == YamlNode.Scalar.Kind.BOOLEAN
                            ? node
                            : wrong(node, shape, what);
            case Shape.Whole whole -> whole(node, whole, what);
            case Shape.Word word -> word(node, word, what);
            case Shape.ListOf list -> list(node, list, what);
            case Shape.Named named -> named(node, named, what);
            case Shape.Keys keys -> keys(node, keys, what);
            case Shape.Either either -> either(node, either, what);
        };
    }

    private @Nullable YamlNode text(YamlNode node, Shape.Text shape, String what) {
        if (!(node instanceof YamlNode.Scalar scalar)
                || scalar.kind() == YamlNode.Scalar.Kind.NULL) {
            return wrong(node, shape, what);
        }
        var pattern = shape.pattern();
        return pattern == null || pattern.matcher(scalar.text()).matches()
                ? node
                : wrong(node, shape, what);
    }

    private @Nullable YamlNode whole(YamlNode node, Shape.Whole shape, String what) {
        if (node instanceof YamlNode.Scalar(var text, var kind, _, _)
                && kind == YamlNode.Scalar.Kind.NUMBER
                && text.matches("-?\\d{1,9}")) {
            int value = Integer.parseInt(text);
            if (value >= shape.lowest() && value <= shape.highest()) {
                return node;
            }
        }
        return wrong(node, shape, what);
    }

    private @Nullable YamlNode word(YamlNode node, Shape.Word shape, String what) {
        if (!(node instanceof YamlNode.Scalar scalar)) {
            return wrong(node, shape, what);
        }
        if (shape.words().contains(scalar.text())) {
            return node;
        }
        report(
                DefinitionCode.WRONG_VALUE,
                node.place(),
                "%s must be %s, but is %s."
                        .formatted(what, shape.expected(), Quoted.of(scalar.text())),
                Nearest.to(scalar.text(), shape.words()).orElse(null));
        return null;
    }

    private @Nullable YamlNode list(YamlNode node, Shape.ListOf shape, String what) {
        if (!(node instanceof YamlNode.Sequence sequence)) {
            return wrong(node, shape, what);
        }
        var items = new java.util.ArrayList<YamlNode>();
        for (var item : sequence.items()) {
            var fitting = fit(item, shape.item(), "An item of " + what);
            if (fitting != null) {
                items.add(fitting);
            }
        }
        return new YamlNode.Sequence(items, node.place());
    }

    private @Nullable YamlNode named(YamlNode node, Shape.Named shape, String what) {
        if (!(node instanceof YamlNode.Mapping mapping)) {
            return wrong(node, shape, what);
        }
        var entries = new java.util.ArrayList<YamlNode.Entry>();
        for (var entry : mapping.entries()) {
            var name = entry.key().text();
            if (!shape.names().matcher(name).matches()) {
                report(
                        DefinitionCode.BAD_NAME,
                        entry.key().place(),
                        "%s is not a name here: %s.".formatted(Quoted.of(name), shape.nameRule()),
                        null);
                continue;
            }
            var value =
                    fit(emptyAsKeys(entry.value(), shape.value()), shape.value(), Quoted.of(name));
            if (value != null) {
                entries.add(new YamlNode.Entry(entry.key(), value));
            }
        }
        return new YamlNode.Mapping(entries, node.place());
    }

    private @Nullable YamlNode keys(YamlNode node, Shape.Keys shape, String what) {
        if (!(node instanceof YamlNode.Mapping mapping)) {
            return wrong(node, shape, what);
        }
        var entries = new java.util.ArrayList<YamlNode.Entry>();
        for (var entry : mapping.entries()) {
            var name = entry.key().text();
            var key =
                    shape.keys().stream()
                            .filter(candidate -> candidate.name().equals(name))
                            .findFirst();
            if (key.isEmpty()) {
                unknownKey(entry, shape);
                continue;
            }
            var value =
                    fit(
                            emptyAsKeys(entry.value(), key.get().shape()),
                            key.get().shape(),
                            Quoted.of(name));
            if (value != null) {
                entries.add(new YamlNode.Entry(entry.key(), value));
            }
        }
        reportMissing(mapping, shape, what);
        return new YamlNode.Mapping(entries, node.place());
    }

    private void unknownKey(YamlNode.Entry entry, Shape.Keys shape) {
        var name = entry.key().text();
        var nearest = Nearest.to(name, shape.names()).orElse(null);
        var hint = nearest == null ? "; there can be " + String.join(", ", shape.names()) : "";
        boolean nothingBehind =
                entry.value() instanceof YamlNode.Scalar(_, var kind, _, _)
                        && kind == YamlNode.Scalar.Kind.NULL;
        if (nothingBehind && name.contains(" ")) {
            hint =
                    "; if it belongs to the text before it, put that text in double quotes, since a"
                            + " comma ends it here";
        }
        report(
                DefinitionCode.UNKNOWN_KEY,
                entry.key().place(),
                "%s is not known here%s.".formatted(Quoted.of(name), hint),
                nearest);
    }

    private void reportMissing(YamlNode.Mapping mapping, Shape.Keys shape, String what) {
        for (var key : shape.keys()) {
            if (key.required() && mapping.get(key.name()).isEmpty()) {
                var start = mapping.place();
                report(
                        DefinitionCode.MISSING_KEY,
                        new Place(start.line(), start.column(), start.line(), start.column() + 1),
                        "\"%s\" is missing in %s: %s".formatted(key.name(), what, key.describe()),
                        null);
            }
        }
    }

    /**
     * A key with nothing behind it is the same as one with empty braces, where braces are expected.
     */
    private static YamlNode emptyAsKeys(YamlNode value, Shape shape) {
        boolean empty =
                value instanceof YamlNode.Scalar(_, var kind, _, _)
                        && kind == YamlNode.Scalar.Kind.NULL;
        boolean braces = shape instanceof Shape.Keys || shape instanceof Shape.Named;
        return empty && braces ? new YamlNode.Mapping(List.of(), value.place()) : value;
    }

    private @Nullable YamlNode either(YamlNode node, Shape.Either either, String what) {
        for (var option : either.options()) {
            boolean sameForm =
                    switch (node) {
                        case YamlNode.Scalar _ ->
                                !(option instanceof Shape.ListOf)
                                        && !(option instanceof Shape.Named)
                                        && !(option instanceof Shape.Keys);
                        case YamlNode.Sequence _ -> option instanceof Shape.ListOf;
                        case YamlNode.Mapping _ ->
                                option instanceof Shape.Named || option instanceof Shape.Keys;
                    };
            if (sameForm) {
                return fit(node, option, what);
            }
        }
        return wrong(node, either, what);
    }

    private @Nullable YamlNode wrong(YamlNode node, Shape shape, String what) {
        var found =
                node instanceof YamlNode.Scalar(var text, var kind, _, _)
                                && kind != YamlNode.Scalar.Kind.NULL
                        ? Quoted.of(text)
                        : node.described();
        report(
                DefinitionCode.WRONG_VALUE,
                node.place(),
                "%s must be %s, but is %s.".formatted(what, shape.expected(), found),
                null);
        return null;
    }

    private void report(
            ProblemCode code, Place place, String message, @Nullable String suggestion) {
        var sentence =
                message.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + message.substring(1);
        diagnostics.add(Diagnostic.error(file, place, code, sentence, suggestion));
    }
}
