package sandpiper.model.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.definition.PackageType;
import sandpiper.model.definition.Removal;
import sandpiper.model.definition.WhenUsed;
import sandpiper.model.layout.Layout;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.source.Source;
import sandpiper.model.type.ChoiceList;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.model.yaml.YamlNode;

/** Reads one object, all but what needs other objects to be known. */
final class ObjectReader {
    private static final List<TypeKeyword> NO_KEYS =
            List.of(
                    TypeKeyword.REFERENCE,
                    TypeKeyword.BOOLEAN,
                    TypeKeyword.DURATION,
                    TypeKeyword.AMOUNT,
                    TypeKeyword.FILE);

    private final Source source;
    private final PackageType owner;
    private final Map<String, ChoiceList> choices;

    ObjectReader(Source source, PackageType owner, Map<String, ChoiceList> choices) {
        this.source = source;
        this.owner = owner;
        this.choices = choices;
    }

    ObjectType read(String name) {
        var root = source.root();
        var own =
                new FieldReader(source, owner, choices, List.of("fields"))
                        .read(Source.mapping(root, "fields"));
        var lifecycles = new LifecycleReader(source, owner);
        var lifecycle = lifecycles.read(own);
        var fields = lifecycle == null ? own : lifecycles.withState(name, own, lifecycle);
        var rules = new RuleReader(source);
        var label =
                Source.spoken(root, "label", owner.languages()).orElseGet(() -> Names.label(name));
        return new ObjectType(
                name,
                owner.name(),
                label,
                Source.spoken(root, "plural", owner.languages())
                        .orElseGet(() -> Names.plural(label)),
                Source.text(root, "describe").orElse(null),
                Source.text(root, "was").orElse(null),
                key(fields),
                NumberingReader.read(source, fields).orElse(null),
                Source.text(root, "removal")
                        .filter(word -> !word.isEmpty())
                        .map(word -> Removal.valueOf(word.toUpperCase(Locale.ROOT)))
                        .orElse(Removal.RETIRE),
                Source.text(Source.mapping(root, "removal"), "retire")
                        .map(word -> WhenUsed.valueOf(word.toUpperCase(Locale.ROOT)))
                        .orElse(WhenUsed.ASK),
                fields,
                parts(fields),
                owner.zone(),
                owner.rounding(),
                lifecycle,
                rules.checks(root, List.of()),
                rules.rules(root),
                new FunctionReader(source, owner, choices).read(root, lifecycle),
                new HandlerReader(source).read(root),
                new ScheduleReader(source, fields).read(root),
                Layout.NONE);
    }

    private List<String> key(Fields fields) {
        var key = new ArrayList<String>();
        for (var name : Source.texts(source.root(), "key")) {
            var field = fields.find(name);
            if (field.isEmpty()) {
                source.error(
                        DefinitionCode.UNKNOWN_FIELD,
                        "There is no field %s to be the key.".formatted(Quoted.of(name)),
                        Nearest.to(name, fields.names()).orElse(null),
                        "key");
            } else if (NO_KEYS.contains(field.get().type().keyword())
                    || isLocalised(field.get().type())) {
                source.error(
                        DefinitionCode.BAD_KEY,
                        "%s is %s and cannot be part of a key; use text, a number, a date or a choice."
                                .formatted(name, field.get().type().keyword().word()),
                        null,
                        "key");
            } else if (key.contains(name)) {
                source.error(
                        DefinitionCode.DUPLICATE_NAME,
                        "%s stands in the key twice.".formatted(Quoted.of(name)),
                        null,
                        "key");
            } else {
                key.add(name);
            }
        }
        return key;
    }

    private static boolean isLocalised(FieldType type) {
        return type instanceof TextType text && text.isLocalised();
    }

    private List<Part> parts(Fields fields) {
        var parts = new ArrayList<Part>();
        for (var entry : Source.mapping(source.root(), "parts").entries()) {
            var name = entry.key().text();
            if (Names.isReserved(name)) {
                source.errorAt(
                        entry.key().place(),
                        DefinitionCode.RESERVED_NAME,
                        "%s has a meaning already and cannot be the name of a part; choose another."
                                .formatted(Quoted.of(name)),
                        null);
            } else if (fields.names().stream().anyMatch(name::equalsIgnoreCase)) {
                source.errorAt(
                        entry.key().place(),
                        DefinitionCode.DUPLICATE_NAME,
                        "%s is the name of a field already; choose another."
                                .formatted(Quoted.of(name)),
                        null);
            } else if (entry.value() instanceof YamlNode.Mapping definition) {
                parts.add(part(parts.size(), name, definition));
            }
        }
        return parts;
    }

    private Part part(int index, String name, YamlNode.Mapping definition) {
        var reader = new FieldReader(source, owner, choices, List.of("parts", name, "fields"));
        return new Part(
                index,
                name,
                Source.spoken(definition, "label", owner.languages())
                        .orElseGet(() -> Names.label(name)),
                Source.text(definition, "describe").orElse(null),
                reader.read(Source.mapping(definition, "fields")),
                Source.text(definition, "was").orElse(null),
                new RuleReader(source).checks(definition, List.of("parts", name)),
                source.condition(definition, "readOnlyWhen"),
                source.said(definition, "readOnlyWhen"));
    }
}
