package sandpiper.server.soap;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.read.PlainRecords;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.PathGroup;
import sandpiper.model.release.Release;
import sandpiper.model.release.ValueType;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.server.soap.xml.XmlText;

/**
 * The types of a service in XML Schema 1.0, each made when it is first named. Elements stand in the
 * order of the fields.
 */
final class SchemaTypes {
    private static final String MONEY = "Money";
    private static final String FILE = "FileValue";

    private final Release release;
    private final Map<String, String> made = new LinkedHashMap<>();

    SchemaTypes(Release release) {
        this.release = release;
    }

    /** Every type that was named, as XML. */
    Iterable<String> all() {
        return made.values();
    }

    /** Keeps a type that is written elsewhere under its name. */
    void put(String name, XmlText type) {
        made.put(name, type.toString());
    }

    /** The type of a record as it is answered; gives its name. */
    String answer(String name, ObjectType object, FieldTree tree) {
        if (made.putIfAbsent(name, "") == null) {
            var xml = begin(name, describe(object));
            xml.leaf("xs:element", "name", "id", "type", "xs:string");
            xml.leaf("xs:element", "name", "version", "type", "xs:long");
            answered(xml, name, object.name(), tree.paths(), 0);
            for (var part : tree.parts()) {
                var item = itemName(name, part);
                items(xml, part, item, true);
                itemType(item, object, part, true);
            }
            end(name, xml);
        }
        return name;
    }

    /**
     * The type of a record as it is sent; gives its name.
     *
     * @param whole whether it must have all a new record needs
     * @param nillable whether an element may be there without a value, which empties a field
     */
    String input(String name, ObjectType object, FieldTree tree, boolean whole, boolean nillable) {
        if (made.putIfAbsent(name, "") == null) {
            var xml = begin(name, describe(object));
            for (var path : tree.paths()) {
                var field = path.last();
                boolean needed =
                        whole
                                && field.defaultValue() == null
                                && (field.required() || object.key().contains(field.name()));
                element(xml, object.name(), field, needed, nillable && !needed);
            }
            for (var part : tree.parts()) {
                var item = itemName(name, part);
                items(xml, part, item, false);
                itemType(item, object, part, false);
            }
            end(name, xml);
        }
        return name;
    }

    private static XmlText begin(String name, String describe) {
        var xml = new XmlText().open("xs:complexType", "name", name);
        document(xml, describe);
        return xml.open("xs:sequence");
    }

    private void end(String name, XmlText xml) {
        put(name, xml.close().close());
    }

    static void document(XmlText xml, String describe) {
        xml.open("xs:annotation").text("xs:documentation", describe).close();
    }

    /** Not only the part's name: generators call the list around the items so. */
    private static String itemName(String record, FieldTree.PartTree part) {
        return record + ResourceNames.capital(part.part().name()) + "Item";
    }

    private static void items(XmlText xml, FieldTree.PartTree part, String item, boolean answered) {
        xml.open("xs:element", "name", part.part().name(), "minOccurs", answered ? null : "0");
        document(
                xml, Objects.requireNonNullElse(part.part().describe(), part.part().label() + "."));
        xml.open("xs:complexType").open("xs:sequence");
        xml.leaf(
                "xs:element",
                "name",
                XmlValues.ITEM,
                "type",
                "t:" + item,
                "minOccurs",
                "0",
                "maxOccurs",
                "unbounded");
        xml.close().close().close();
    }

    private void itemType(
            String name, ObjectType object, FieldTree.PartTree part, boolean answered) {
        var xml = begin(name, "One of " + part.part().label().toLowerCase(Locale.ROOT) + ".");
        xml.leaf(
                "xs:element",
                "name",
                "line",
                "type",
                "xs:long",
                "minOccurs",
                answered ? null : "0");
        var owner = object.name() + ResourceNames.capital(part.part().name());
        if (answered) {
            answered(xml, name, owner, part.paths(), 0);
        } else {
            part.paths().forEach(path -> element(xml, owner, path.last(), false, true));
        }
        end(name, xml);
    }

    /** Elements of what is answered; {@code owner} is whose fields stand at this depth. */
    private void answered(
            XmlText xml, String name, String owner, List<FieldPath> paths, int depth) {
        for (var group : PathGroup.of(paths, depth)) {
            var field = group.field();
            if (group.behind().isEmpty()) {
                element(xml, owner, field, false, false);
                continue;
            }
            var nested = name + ResourceNames.capital(field.name());
            nested(nested, group, depth + 1);
            xml.open("xs:element", "name", field.name(), "type", "t:" + nested, "minOccurs", "0");
            document(xml, describe(field));
            xml.close();
        }
    }

    private void nested(String name, PathGroup group, int depth) {
        var target = release.target(group.field());
        var xml = begin(name, describe(target));
        if (group.itself()) {
            xml.leaf("xs:element", "name", PlainRecords.KEY, "type", "xs:string");
        }
        answered(xml, name, target.name(), group.behind(), depth);
        end(name, xml);
    }

    private void element(XmlText xml, String owner, Field field, boolean needed, boolean nillable) {
        element(xml, owner, field.name(), field, needed, nillable, describe(field));
    }

    /**
     * An element for what a function takes or gives back.
     *
     * @param owner in whose name types are made
     */
    void value(XmlText xml, String owner, Parameter parameter) {
        var described = Objects.requireNonNullElse(parameter.describe(), parameter.label() + ".");
        value(xml, owner, parameter.name(), parameter.type(), parameter.required(), described);
    }

    private void value(
            XmlText xml,
            String owner,
            String name,
            ValueType type,
            boolean needed,
            String described) {
        switch (type) {
            case ValueType.Single(var field) ->
                    element(xml, owner, name, field, needed, !needed, described);
            case ValueType.Many(var item) -> {
                xml.open("xs:element", "name", name, "minOccurs", needed ? null : "0");
                document(xml, described);
                xml.open("xs:complexType").open("xs:sequence");
                many(xml, owner + ResourceNames.capital(name), item);
                xml.close().close().close();
            }
            case ValueType.Group group -> {
                var made = owner + ResourceNames.capital(name);
                groupType(made, group);
                xml.open(
                        "xs:element",
                        "name",
                        name,
                        "type",
                        "t:" + made,
                        "minOccurs",
                        needed ? null : "0");
                document(xml, described);
                xml.close();
            }
        }
    }

    private void many(XmlText xml, String owner, ValueType item) {
        String type;
        if (item instanceof ValueType.Group group) {
            type = owner + "Item";
            groupType(type, group);
            type = "t:" + type;
        } else if (item instanceof ValueType.Single(var field)) {
            var known = typeOf(owner, field);
            type = known == null ? simple(field.type()) : known;
        } else {
            throw new IllegalStateException("Lists of lists cannot be defined");
        }
        xml.leaf(
                "xs:element",
                "name",
                XmlValues.ITEM,
                "type",
                type,
                "minOccurs",
                "0",
                "maxOccurs",
                "unbounded");
    }

    private void groupType(String name, ValueType.Group group) {
        if (made.putIfAbsent(name, "") == null) {
            var xml = new XmlText().open("xs:complexType", "name", name).open("xs:sequence");
            group.entries().forEach(entry -> value(xml, name, entry));
            end(name, xml);
        }
    }

    private void element(
            XmlText xml,
            String owner,
            String name,
            Field field,
            boolean needed,
            boolean nillable,
            String described) {
        var type = typeOf(owner, field);
        xml.open(
                "xs:element",
                "name",
                name,
                "type",
                type,
                "minOccurs",
                needed ? null : "0",
                "nillable",
                nillable ? "true" : null);
        document(xml, described);
        if (type == null) {
            restricted(xml, field);
        }
        xml.close();
    }

    private static void restricted(XmlText xml, Field field) {
        xml.open("xs:simpleType");
        switch (field.type()) {
            case TextType text ->
                    xml.open("xs:restriction", "base", "xs:string")
                            .leaf("xs:maxLength", "value", String.valueOf(text.length()));
            case NumberType number ->
                    xml.open("xs:restriction", "base", "xs:decimal")
                            .leaf("xs:fractionDigits", "value", String.valueOf(number.scale()));
            default -> throw new IllegalStateException("No restriction of " + field.type());
        }
        xml.close().close();
    }

    /** The name of a field's type, or {@code null} when it is written where it is used. */
    private @Nullable String typeOf(String owner, Field field) {
        return switch (field.type()) {
            case ChoiceType choice -> "t:" + choices(owner, field, choice);
            case MoneyType _ -> "t:" + money();
            case FileType _ -> "t:" + file();
            case TextType text when text.isLocalised() -> "t:" + localised(text);
            case TextType _ -> null;
            case NumberType number when number.keyword() != TypeKeyword.INTEGER -> null;
            default -> simple(field.type());
        };
    }

    /** The built-in type of a value without its bounds. */
    static String simple(FieldType type) {
        return switch (type.keyword()) {
            case INTEGER -> "xs:long";
            case DECIMAL, PERCENT, AMOUNT -> "xs:decimal";
            case BOOLEAN -> "xs:boolean";
            case DATE -> "xs:date";
            case TIME -> "xs:time";
            case DATE_TIME -> "xs:dateTime";
            case DURATION -> "xs:duration";
            default -> "xs:string";
        };
    }

    /** The enumeration of a choice field; gives its name. */
    String choices(String owner, Field field, ChoiceType choice) {
        var list = choice.choices();
        boolean shared = Character.isUpperCase(list.name().charAt(0));
        var name = shared ? list.name() : owner + ResourceNames.capital(field.name());
        if (made.putIfAbsent(name, "") == null) {
            var xml = new XmlText().open("xs:simpleType", "name", name);
            xml.open("xs:restriction", "base", "xs:string");
            list.labels()
                    .forEach((code, label) -> {
                        xml.open("xs:enumeration", "value", code);
                        document(xml, label);
                        xml.close();
                    });
            put(name, xml.close().close());
        }
        return name;
    }

    private String money() {
        if (made.putIfAbsent(MONEY, "") == null) {
            var xml = begin(MONEY, "An amount with its currency (ISO 4217).");
            xml.leaf("xs:element", "name", "value", "type", "xs:decimal");
            xml.leaf("xs:element", "name", "currency", "type", "xs:string");
            end(MONEY, xml);
        }
        return MONEY;
    }

    private String file() {
        if (made.putIfAbsent(FILE, "") == null) {
            var xml =
                    begin(
                            FILE,
                            "A file. To give one, send its name and content; what is answered"
                                    + " tells it by its digest, without its content.");
            xml.leaf("xs:element", "name", FileType.NAME, "type", "xs:string");
            optional(xml, FileType.TYPE, "xs:string");
            optional(xml, FileType.SIZE, "xs:long");
            optional(xml, FileType.SHA256, "xs:string");
            optional(xml, FileType.CONTENT, "xs:base64Binary");
            end(FILE, xml);
        }
        return FILE;
    }

    private static void optional(XmlText xml, String name, String type) {
        xml.leaf("xs:element", "name", name, "type", type, "minOccurs", "0");
    }

    private String localised(TextType text) {
        var name =
                "Text"
                        + String.join(
                                "", text.languages().stream().map(ResourceNames::capital).toList());
        if (made.putIfAbsent(name, "") == null) {
            var xml = begin(name, "A text in several languages.");
            text.languages().forEach(language -> optional(xml, language, "xs:string"));
            end(name, xml);
        }
        return name;
    }

    private static String describe(ObjectType object) {
        return Objects.requireNonNullElse(object.describe(), object.label() + ".");
    }

    private String describe(Field field) {
        var words = field.told();
        if (field.type() instanceof NumberType number && !number.unit().isEmpty()) {
            return words + " " + number.unit();
        }
        return field.type() instanceof FieldType.Reference reference
                ? words + " The key of " + release.target(reference).label() + "."
                : words;
    }
}
