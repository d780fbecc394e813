package sandpiper.model.check;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.ArrayList;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.definition.FieldLogic;
import sandpiper.model.definition.LogicText;
import sandpiper.model.definition.PackageType;
import sandpiper.model.definition.Travels;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.source.DefaultReader;
import sandpiper.model.source.Source;
import sandpiper.model.type.BooleanType;
import sandpiper.model.type.ByteCount;
import sandpiper.model.type.ChoiceList;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.model.type.UuidType;
import sandpiper.model.yaml.YamlNode;

/** Reads the fields of one object or part. */
final class FieldReader {
    private static final int USUAL_SCALE = 2;

    private final Source source;
    private final PackageType owner;
    private final Map<String, ChoiceList> choices;
    private final List<String> path;

    /** Reads below a path of keys that ends in {@code fields}. */
    FieldReader(
            Source source, PackageType owner, Map<String, ChoiceList> choices, List<String> path) {
        this.source = source;
        this.owner = owner;
        this.choices = choices;
        this.path = List.copyOf(path);
    }

    Fields read(YamlNode.Mapping fields) {
        var read = read(fields, 0);
        if (read.isEmpty()) {
            source.error(
                    DefinitionCode.MISSING_KEY,
                    "There must be at least one field.",
                    null,
                    path.toArray(String[]::new));
        }
        return new Fields(read);
    }

    /**
     * Reads fields that come behind others.
     *
     * @param first the index of the first of them
     */
    List<Field> read(YamlNode.Mapping fields, int first) {
        var read = new ArrayList<Field>();
        var namesInSmall = new TreeMap<String, String>(String.CASE_INSENSITIVE_ORDER);
        for (var entry : fields.entries()) {
            var name = entry.key().text();
            if (Names.isReserved(name)) {
                source.errorAt(
                        entry.key().place(),
                        DefinitionCode.RESERVED_NAME,
                        "%s has a meaning already and cannot be the name of a field; choose another."
                                .formatted(Quoted.of(name)),
                        null);
                continue;
            }
            var earlier = namesInSmall.putIfAbsent(name, name);
            if (earlier != null) {
                source.errorAt(
                        entry.key().place(),
                        DefinitionCode.DUPLICATE_NAME,
                        "%s differs from %s only in capital letters; choose another name."
                                .formatted(Quoted.of(name), Quoted.of(earlier)),
                        null);
                continue;
            }
            if (entry.value() instanceof YamlNode.Mapping definition) {
                read.add(field(first + read.size(), name, definition));
            }
        }
        return read;
    }

    /** Reads what stands under one name, such as what a function gives back. */
    Field one(String name, YamlNode.Mapping definition) {
        return field(0, name, definition);
    }

    private Field field(int index, String name, YamlNode.Mapping definition) {
        var keyword =
                TypeKeyword.of(Source.text(definition, "type").orElse(TypeKeyword.TEXT.word()));
        for (var key : TypeKeyword.SPECIAL_KEYS) {
            if (definition.get(key).isPresent() && !keyword.allows(key)) {
                source.errorAtKey(
                        DefinitionCode.NOT_FOR_THIS_TYPE,
                        "%s is not for a field of type %s."
                                .formatted(Quoted.of(key), keyword.word()),
                        null,
                        at(name, key));
            }
        }
        var type = type(name, keyword, definition);
        var logic = logic(definition);
        if (!logic.fill().isEmpty() || logic.offer() != null) {
            if (keyword != TypeKeyword.REFERENCE) {
                source.errorAtKey(
                        DefinitionCode.NOT_FOR_THIS_TYPE,
                        "Only a reference offers records and fills other fields from them.",
                        null,
                        at(name, logic.offer() == null ? "fill" : "offer"));
            }
        }
        if (logic.formula() != null && definition.get("default").isPresent()) {
            source.errorAtKey(
                    DefinitionCode.NOT_FOR_THIS_TYPE,
                    "A field with a formula has no default; the formula always gives its value.",
                    null,
                    at(name, "default"));
        }
        return new Field(
                index,
                name,
                Source.spoken(definition, "label", owner.languages())
                        .orElseGet(() -> Names.label(name)),
                Source.text(definition, "describe").orElse(null),
                type,
                Source.flag(definition, "required"),
                Source.flag(definition, "unique"),
                Source.flag(definition, "readOnly") || logic.formula() != null,
                defaultValue(name, type, definition),
                Source.text(definition, "was").orElse(null),
                logic,
                null,
                false);
    }

    private FieldLogic logic(YamlNode.Mapping definition) {
        var fill = new LinkedHashMap<String, LogicText>();
        var filled = Source.mapping(definition, "fill");
        for (var entry : filled.entries()) {
            var from = source.logic(filled, entry.key().text());
            if (from != null) {
                fill.put(entry.key().text(), from);
            }
        }
        return new FieldLogic(
                source.logic(definition, "formula"),
                source.condition(definition, "requiredWhen"),
                source.condition(definition, "readOnlyWhen"),
                source.condition(definition, "hiddenWhen"),
                source.condition(definition, "offer"),
                fill,
                source.said(definition, "requiredWhen"),
                source.said(definition, "readOnlyWhen"),
                source.said(definition, "offer"),
                travels(definition),
                null);
    }

    private static List<Travels> travels(YamlNode.Mapping definition) {
        return definition.get("travels").stream()
                .flatMap(node ->
                        node instanceof YamlNode.Sequence(var items, _)
                                ? items.stream()
                                : Stream.of(node))
                .map(FieldReader::travels)
                .toList();
    }

    private static Travels travels(YamlNode node) {
        return node instanceof YamlNode.Mapping more
                ? new Travels(
                        Source.text(more, "route").orElse(""),
                        more.get("to").isPresent() ? Source.texts(more, "to") : null,
                        Source.flag(more, "follows"))
                : new Travels(Source.text(node), null, false);
    }

    private FieldType type(String name, TypeKeyword keyword, YamlNode.Mapping definition) {
        return switch (keyword) {
            case TEXT -> text(name, definition);
            case EMAIL -> TextType.email(length(definition, TextType.email()));
            case PHONE -> TextType.phone(length(definition, TextType.phone()));
            case WEB_ADDRESS -> TextType.webAddress(length(definition, TextType.webAddress()));
            case INTEGER -> NumberType.integer();
            case DECIMAL, PERCENT ->
                    new NumberType(keyword, Source.whole(definition, "scale", USUAL_SCALE), null);
            case AMOUNT -> amount(name, definition);
            case BOOLEAN -> new BooleanType();
            case DATE, TIME, DATE_TIME, DURATION -> new TemporalType(keyword, owner.zone());
            case CHOICE -> choice(name, definition);
            case REFERENCE -> reference(name, definition);
            case UUID -> new UuidType();
            case FILE -> file(name, definition);
        };
    }

    private static int length(YamlNode.Mapping definition, TextType usual) {
        return Source.whole(definition, "length", usual.length());
    }

    private TextType text(String name, YamlNode.Mapping definition) {
        boolean multiline = Source.flag(definition, "multiline");
        return new TextType(
                TypeKeyword.TEXT,
                Source.whole(
                        definition,
                        "length",
                        multiline ? TextType.USUAL_MULTILINE_LENGTH : TextType.USUAL_LENGTH),
                pattern(name, definition),
                multiline,
                Source.flag(definition, "localised") ? owner.languages() : List.of());
    }

    private @Nullable Pattern pattern(String name, YamlNode.Mapping definition) {
        var pattern = Source.text(definition, "pattern");
        if (pattern.isEmpty()) {
            return null;
        }
        try {
            return Pattern.compile(pattern.get());
        } catch (PatternSyntaxException e) {
            source.error(
                    DefinitionCode.BAD_PATTERN,
                    "This is not a regular expression of RE2: %s.".formatted(e.getDescription()),
                    null,
                    at(name, "pattern"));
            return null;
        }
    }

    private FieldType amount(String name, YamlNode.Mapping definition) {
        var currency = Source.text(definition, "currency").orElse(owner.currency());
        if (currency.equals("record")) {
            return new MoneyType(Source.whole(definition, "scale", USUAL_SCALE));
        }
        if (!PackageReader.isCurrency(currency)) {
            source.error(
                    DefinitionCode.WRONG_VALUE,
                    "%s is not a currency of ISO 4217.".formatted(Quoted.of(currency)),
                    null,
                    at(name, "currency"));
            return new NumberType(TypeKeyword.AMOUNT, USUAL_SCALE, currency);
        }
        int usual = Math.max(0, Currency.getInstance(currency).getDefaultFractionDigits());
        return new NumberType(
                TypeKeyword.AMOUNT, Source.whole(definition, "scale", usual), currency);
    }

    private FieldType choice(String name, YamlNode.Mapping definition) {
        var from = Source.text(definition, "from");
        if (from.isEmpty()) {
            return new ChoiceType(choices(name, definition));
        }
        for (var other : List.of("choices", "formula")) {
            if (definition.get(other).isPresent()) {
                source.errorAtKey(
                        DefinitionCode.NOT_FOR_THIS_TYPE,
                        "A choice whose codes come from outside has no %s; leave out one of the two."
                                .formatted(Quoted.of(other)),
                        null,
                        at(name, other));
            }
        }
        return new OutsideChoiceType(from.get());
    }

    private ChoiceList choices(String name, YamlNode.Mapping definition) {
        var node = definition.get("choices");
        if (node.isEmpty()) {
            source.errorAtKey(
                    DefinitionCode.MISSING_KEY,
                    "A choice needs \"choices\", the name of a choice list or its codes, or"
                            + " \"from\", a lookup of a connection.",
                    null,
                    at(name));
            return new ChoiceList(name, Map.of("unknown", "Unknown"));
        }
        if (!(node.get() instanceof YamlNode.Scalar(var listName, _, _, _))) {
            return ChoiceReader.read(source, name, node.get(), owner.languages());
        }
        var list = choices.get(listName);
        if (list != null) {
            return list;
        }
        source.error(
                DefinitionCode.UNKNOWN_CHOICES,
                "There is no choice list %s.".formatted(Quoted.of(listName)),
                Nearest.to(listName, choices.keySet()).orElse(null),
                at(name, "choices"));
        return new ChoiceList(name, Map.of("unknown", "Unknown"));
    }

    private FieldType reference(String name, YamlNode.Mapping definition) {
        var to = Source.text(definition, "to");
        if (to.isEmpty()) {
            source.errorAtKey(
                    DefinitionCode.MISSING_KEY,
                    "A reference needs \"to\": the object it points to.",
                    null,
                    at(name));
        }
        return new FieldType.Reference(
                to.orElse(""), Source.text(definition, "inverse").orElse(null));
    }

    private FieldType file(String name, YamlNode.Mapping definition) {
        for (var other : List.of("formula", "unique", "default")) {
            if (definition.get(other).isPresent()) {
                source.errorAtKey(
                        DefinitionCode.NOT_FOR_THIS_TYPE,
                        "A file has no %s; somebody gives it.".formatted(Quoted.of(other)),
                        null,
                        at(name, other));
            }
        }
        var accepts = Source.texts(definition, "accepts");
        return new FileType(
                accepts,
                Source.text(definition, "largest")
                        .map(ByteCount::of)
                        .orElse(FileType.USUAL_LARGEST));
    }

    private @Nullable DefaultValue defaultValue(
            String name, FieldType type, YamlNode.Mapping definition) {
        var text = Source.text(definition, "default").orElse(null);
        if (text == null) {
            return null;
        }
        return DefaultReader.read(source, "default", type, text, at(name, "default"));
    }

    private String[] at(String... further) {
        var all = new ArrayList<>(path);
        all.addAll(List.of(further));
        return all.toArray(String[]::new);
    }
}
