package sandpiper.model.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import sandpiper.model.Names;
import sandpiper.model.definition.HandlerDefinition;
import sandpiper.model.source.Source;
import sandpiper.model.yaml.YamlNode;

/** Reads the handlers of an object or an extension. */
final class HandlerReader {
    private final Source source;

    HandlerReader(Source source) {
        this.source = source;
    }

    List<HandlerDefinition> read(YamlNode.Mapping root) {
        var handlers = new ArrayList<HandlerDefinition>();
        for (var entry : Source.mapping(root, "handlers").entries()) {
            if (entry.value() instanceof YamlNode.Mapping definition
                    && source.logic(definition, "then") != null) {
                handlers.add(handler(entry.key().text(), definition));
            }
        }
        return handlers;
    }

    private HandlerDefinition handler(String name, YamlNode.Mapping definition) {
        return new HandlerDefinition(
                name,
                Source.text(definition, "label").orElseGet(() -> Names.label(name)),
                Source.text(definition, "describe").orElse(null),
                Source.texts(definition, "on").stream()
                        .flatMap(text -> Stream.of(text.split("\\s*,\\s*|\\s+or\\s+")))
                        .map(String::strip)
                        .toList(),
                source.logic(definition, "when"),
                Source.text(definition, "run").filter("with"::equals).isPresent(),
                Source.flag(definition, "batch"),
                Objects.requireNonNull(source.logic(definition, "then")));
    }
}
