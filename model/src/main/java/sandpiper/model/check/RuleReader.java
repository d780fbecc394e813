package sandpiper.model.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.definition.CheckDefinition;
import sandpiper.model.definition.RuleDefinition;
import sandpiper.model.definition.Trigger;
import sandpiper.model.source.Source;
import sandpiper.model.yaml.YamlNode;

/** Reads the checks and rules of an object, an extension or a part. */
final class RuleReader {
    private static final String OF = "change of ";
    private static final List<String> WORDS = List.of("create", "change", "retire", "change of");

    private final Source source;

    RuleReader(Source source) {
        this.source = source;
    }

    /**
     * The checks.
     *
     * @param above the keys that lead to the mapping
     */
    List<CheckDefinition> checks(YamlNode.Mapping root, List<String> above) {
        var checks = new ArrayList<CheckDefinition>();
        if (root.get("checks").orElse(null) instanceof YamlNode.Sequence(var items, _)) {
            for (int i = 0; i < items.size(); i++) {
                // One without condition or message is not finished; its shape was reported.
                if (items.get(i) instanceof YamlNode.Mapping definition
                        && source.logic(definition, "that") != null
                        && source.logic(definition, "say") != null) {
                    var path = new ArrayList<>(above);
                    path.add("checks");
                    path.add(String.valueOf(i));
                    checks.add(check(definition, i, path));
                }
            }
        }
        return checks;
    }

    private CheckDefinition check(YamlNode.Mapping definition, int index, List<String> path) {
        var at = Source.text(definition, "at").orElse(null);
        return new CheckDefinition(
                Source.text(definition, "name")
                        .orElse(at == null ? "check" + (index + 1) : at + "Check" + (index + 1)),
                Objects.requireNonNull(source.logic(definition, "that")),
                Objects.requireNonNull(source.logic(definition, "say")),
                source.logic(definition, "at"),
                Source.text(definition, "severity").filter("warning"::equals).isPresent(),
                definition.get("on").isPresent() ? trigger(definition, path) : Trigger.ALWAYS,
                Source.texts(definition, "before"),
                source.logic(definition, "before"));
    }

    List<RuleDefinition> rules(YamlNode.Mapping root) {
        var rules = new ArrayList<RuleDefinition>();
        for (var entry : Source.mapping(root, "rules").entries()) {
            if (entry.value() instanceof YamlNode.Mapping definition
                    && source.logic(definition, "then") != null) {
                var name = entry.key().text();
                rules.add(
                        new RuleDefinition(
                                name,
                                Source.text(definition, "label").orElseGet(() -> Names.label(name)),
                                Source.text(definition, "describe").orElse(null),
                                trigger(definition, List.of("rules", name)),
                                source.logic(definition, "when"),
                                Objects.requireNonNull(source.logic(definition, "then"))));
            }
        }
        return rules;
    }

    private Trigger trigger(YamlNode.Mapping definition, List<String> above) {
        var path = new ArrayList<>(above);
        path.add("on");
        boolean create = false;
        boolean change = false;
        boolean retire = false;
        var fields = new ArrayList<String>();
        for (var written : Source.texts(definition, "on")) {
            for (var text : written.split("\\s+or\\s+")) {
                var word = text.strip();
                switch (word) {
                    case "create" -> create = true;
                    case "change" -> change = true;
                    case "retire" -> retire = true;
                    default -> {
                        if (word.startsWith(OF)) {
                            for (var field : word.substring(OF.length()).split(",")) {
                                fields.add(field.strip());
                            }
                        } else if (!fields.isEmpty() && Names.FIELD.matcher(word).matches()) {
                            // YAML cuts "change of a, b" in two when it stands in brackets.
                            fields.add(word);
                        } else {
                            source.error(
                                    DefinitionCode.WRONG_VALUE,
                                    "%s is nothing that happens; write create, change, retire, or"
                                                    .formatted(Quoted.of(word))
                                            + " change of with field names.",
                                    Nearest.to(word, WORDS).orElse(null),
                                    path.toArray(String[]::new));
                        }
                    }
                }
            }
        }
        return new Trigger(create, change, retire, fields, source.logic(definition, "on"));
    }
}
