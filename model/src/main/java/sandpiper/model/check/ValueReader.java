package sandpiper.model.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.definition.PackageType;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.ValueType;
import sandpiper.model.source.Source;
import sandpiper.model.type.ChoiceList;
import sandpiper.model.yaml.YamlNode;

/** Reads what a function takes and gives back, and what an event tells. */
final class ValueReader {
    private static final String CONTEXT = "context";

    private final Source source;
    private final PackageType owner;
    private final Map<String, ChoiceList> choices;

    ValueReader(Source source, PackageType owner, Map<String, ChoiceList> choices) {
        this.source = source;
        this.owner = owner;
        this.choices = choices;
    }

    /**
     * Reads values under names.
     *
     * @param path the keys that lead to the mapping
     */
    ValueType.Group group(YamlNode.Mapping entries, List<String> path) {
        var read = new ArrayList<Parameter>();
        for (var entry : entries.entries()) {
            var name = entry.key().text();
            if (Names.isReserved(name)) {
                source.errorAt(
                        entry.key().place(),
                        DefinitionCode.RESERVED_NAME,
                        "%s has a meaning already; choose another name.".formatted(Quoted.of(name)),
                        null);
                continue;
            }
            var definition = keys(entry.value());
            read.add(
                    new Parameter(
                            name,
                            Source.spoken(definition, "label", owner.languages())
                                    .orElseGet(() -> Names.label(name)),
                            Source.text(definition, "describe").orElse(null),
                            Source.flag(definition, "required"),
                            type(name, definition, path)));
        }
        return new ValueType.Group(read);
    }

    /**
     * Reads one value.
     *
     * @param path the keys that lead to it, its own not among them
     */
    ValueType one(String name, YamlNode node, List<String> path) {
        return type(name, keys(node), path);
    }

    private ValueType type(String name, YamlNode.Mapping definition, List<String> path) {
        boolean isContext = Source.text(definition, "type").filter(CONTEXT::equals).isPresent();
        var fields = Source.mapping(definition, "fields");
        if (isContext == fields.entries().isEmpty()) {
            source.errorAtKey(
                    isContext ? DefinitionCode.MISSING_KEY : DefinitionCode.NOT_FOR_THIS_TYPE,
                    isContext
                            ? "A context needs \"fields\": what it has."
                            : "Only a context has fields; give it the type context.",
                    null,
                    with(path, name).toArray(String[]::new));
        }
        var one =
                isContext
                        ? group(fields, with(with(path, name), "fields"))
                        : new ValueType.Single(
                                new FieldReader(source, owner, choices, path)
                                        .one(name, definition));
        return Source.flag(definition, "list") ? new ValueType.Many(one) : one;
    }

    /** What is said of a value; a word alone is its type. */
    private static YamlNode.Mapping keys(YamlNode node) {
        if (node instanceof YamlNode.Mapping mapping) {
            return mapping;
        }
        var key =
                new YamlNode.Scalar(
                        "type",
                        YamlNode.Scalar.Kind.TEXT,
                        YamlNode.Scalar.Style.PLAIN,
                        node.place());
        return new YamlNode.Mapping(List.of(new YamlNode.Entry(key, node)), node.place());
    }

    private static List<String> with(List<String> path, String more) {
        var longer = new ArrayList<>(path);
        longer.add(more);
        return longer;
    }
}
