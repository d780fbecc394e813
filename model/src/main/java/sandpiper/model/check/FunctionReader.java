package sandpiper.model.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.definition.Lifecycle;
import sandpiper.model.definition.PackageType;
import sandpiper.model.release.FunctionDefinition;
import sandpiper.model.source.Source;
import sandpiper.model.type.ChoiceList;
import sandpiper.model.yaml.YamlNode;

/** Reads the functions of an object or an extension. */
final class FunctionReader {
    private static final String KEY = "functions";

    private final Source source;
    private final ValueReader values;

    FunctionReader(Source source, PackageType owner, Map<String, ChoiceList> choices) {
        this.source = source;
        this.values = new ValueReader(source, owner, choices);
    }

    /**
     * Reads them.
     *
     * @param lifecycle of the object, whose transitions a function may stand in for, or {@code
     *     null}
     */
    List<FunctionDefinition> read(YamlNode.Mapping root, @Nullable Lifecycle lifecycle) {
        var functions = new ArrayList<FunctionDefinition>();
        for (var entry : Source.mapping(root, KEY).entries()) {
            var name = entry.key().text();
            if (!(entry.value() instanceof YamlNode.Mapping definition)
                    || source.logic(definition, "body") == null) {
                continue;
            }
            if (Names.isReserved(name)) {
                source.errorAt(
                        entry.key().place(),
                        DefinitionCode.RESERVED_NAME,
                        "%s has a meaning already and cannot be the name of a function; choose another."
                                .formatted(Quoted.of(name)),
                        null);
                continue;
            }
            var function = function(name, definition);
            if (function.onRecord() && function.parameters().entry("key").isPresent()) {
                source.errorAtKey(
                        DefinitionCode.RESERVED_NAME,
                        "key names the record a function is called on; choose another name.",
                        null,
                        KEY,
                        name,
                        "parameters",
                        "key");
            }
            if (lifecycle != null && lifecycle.find(name).isPresent() && !function.onRecord()) {
                source.errorAt(
                        entry.key().place(),
                        DefinitionCode.DUPLICATE_NAME,
                        "%s is the name of a transition; a function that stands in for it is called on a record."
                                .formatted(Quoted.of(name)),
                        null);
            } else {
                functions.add(function);
            }
        }
        return functions;
    }

    private FunctionDefinition function(String name, YamlNode.Mapping definition) {
        var path = List.of(KEY, name);
        return new FunctionDefinition(
                name,
                Source.text(definition, "label").orElseGet(() -> Names.label(name)),
                Source.text(definition, "describe").orElse(null),
                Source.text(definition, "on").filter("object"::equals).isEmpty(),
                Source.flag(definition, "external"),
                Source.text(definition, "rights").filter("own"::equals).isPresent(),
                values.group(
                        Source.mapping(definition, "parameters"), List.of(KEY, name, "parameters")),
                definition
                        .get("returns")
                        .map(node -> values.one("returns", node, path))
                        .orElse(null),
                Objects.requireNonNull(source.logic(definition, "body")));
    }
}
