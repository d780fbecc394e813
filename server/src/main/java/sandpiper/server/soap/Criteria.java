package sandpiper.server.soap;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.w3c.dom.Element;
import sandpiper.model.contract.ContractNames;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.type.BooleanType;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.MoneyType;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.FeelText;
import sandpiper.server.soap.xml.XmlText;

/**
 * What records are looked for by: an element for each field a caller may filter by, with what its
 * value shall be. All that is given must hold.
 */
final class Criteria {
    private Criteria() {}

    /** The type of a resource's criteria; gives its name, or nothing when there is none to ask. */
    static Optional<String> type(SchemaTypes types, Release release, ResourceType resource) {
        var fields = resource.filterable().stream().filter(Criteria::isAsked).toList();
        if (fields.isEmpty()) {
            return Optional.empty();
        }
        var name = ResourceNames.one(resource) + "Criteria";
        var xml = new XmlText().open("xs:complexType", "name", name);
        SchemaTypes.document(xml, "Everything that is given must hold.");
        xml.open("xs:all");
        for (var path : fields) {
            xml.leaf(
                    "xs:element",
                    "name",
                    ContractNames.element(path),
                    "type",
                    "t:" + criterion(types, release, resource.object(), path),
                    "minOccurs",
                    "0");
        }
        types.put(name, xml.close().close());
        return Optional.of(name);
    }

    private static boolean isAsked(FieldPath path) {
        return !(path.last().type() instanceof MoneyType);
    }

    private static String criterion(
            SchemaTypes types, Release release, ObjectType object, FieldPath path) {
        var field = path.last();
        var value = SchemaTypes.simple(field.type());
        var name = ResourceNames.capital(value.substring("xs:".length())) + "Criterion";
        if (field.type() instanceof ChoiceType choice) {
            var code = types.choices(path.owner(release, object).name(), field, choice);
            value = "t:" + code;
            name = code + "Criterion";
        }
        var xml = new XmlText().open("xs:complexType", "name", name).open("xs:sequence");
        option(xml, "equals", value, null);
        if (XmlValues.isOrdered(field.type())) {
            option(xml, "from", value, "This or more.");
            option(xml, "to", value, "This or less.");
        }
        if (XmlValues.isText(field.type())) {
            option(xml, "like", value, "Text with * at its beginning, its end or both.");
        }
        if (!(field.type() instanceof BooleanType)) {
            xml.leaf(
                    "xs:element",
                    "name",
                    "anyOf",
                    "type",
                    value,
                    "minOccurs",
                    "0",
                    "maxOccurs",
                    "unbounded");
        }
        option(xml, "isEmpty", "xs:boolean", "Whether the field has no value.");
        types.put(name, xml.close().close());
        return name;
    }

    private static void option(XmlText xml, String name, String type, @Nullable String describe) {
        xml.open("xs:element", "name", name, "type", type, "minOccurs", "0");
        if (describe != null) {
            SchemaTypes.document(xml, describe);
        }
        xml.close();
    }

    /** The criteria as a condition in FEEL; empty when none is given. */
    static String condition(ResourceType resource, Element criteria) {
        var parts = new ArrayList<String>();
        for (var element : XmlValues.children(criteria)) {
            resource.filterable().stream()
                    .filter(path -> ContractNames.element(path).equals(element.getLocalName()))
                    .forEach(path -> {
                        for (var option : XmlValues.children(element)) {
                            if (!option.getLocalName().equals("anyOf")) {
                                parts.add(part(path, option));
                            }
                        }
                        anyOf(path, element).ifPresent(parts::add);
                    });
        }
        return String.join(" and ", parts);
    }

    private static Optional<String> anyOf(FieldPath path, Element element) {
        var values =
                XmlValues.children(element).stream()
                        .filter(option -> option.getLocalName().equals("anyOf"))
                        .map(option -> "%s = %s".formatted(path.written(), literal(path, option)))
                        .toList();
        return values.isEmpty()
                ? Optional.empty()
                : Optional.of("(" + String.join(" or ", values) + ")");
    }

    private static String part(FieldPath path, Element option) {
        var name = path.written();
        return switch (option.getLocalName()) {
            case "equals" -> "%s = %s".formatted(name, literal(path, option));
            case "from" -> "%s >= %s".formatted(name, literal(path, option));
            case "to" -> "%s <= %s".formatted(name, literal(path, option));
            case "isEmpty" -> "%s %s null".formatted(name, isTrue(option) ? "=" : "!=");
            default -> like(name, XmlValues.text(option));
        };
    }

    private static boolean isTrue(Element option) {
        return List.of("true", "1").contains(XmlValues.text(option));
    }

    private static String like(String name, String pattern) {
        boolean before = pattern.startsWith("*");
        boolean behind = pattern.length() > 1 && pattern.endsWith("*");
        var inner = pattern.substring(before ? 1 : 0, pattern.length() - (behind ? 1 : 0));
        if (inner.contains("*")) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "like may have * only at the beginning and the end, but is \"%s\"."
                            .formatted(pattern));
        }
        var text = FeelText.quoted(inner);
        if (before && behind) {
            return "contains(%s, %s)".formatted(name, text);
        }
        if (before || behind) {
            return "%s(%s, %s)".formatted(before ? "ends with" : "starts with", name, text);
        }
        return "%s = %s".formatted(name, text);
    }

    private static String literal(FieldPath path, Element option) {
        Field field = path.last();
        var value = String.valueOf(XmlValues.value(field.type(), XmlValues.text(option)));
        return switch (field.type().keyword()) {
            case INTEGER, DECIMAL, PERCENT, AMOUNT -> FeelText.number(value);
            case BOOLEAN -> value;
            case DATE -> FeelText.made("date", value);
            case TIME -> FeelText.made("time", value);
            case DATE_TIME -> FeelText.made("date and time", value);
            case DURATION -> FeelText.made("duration", value);
            default -> FeelText.quoted(value);
        };
    }
}
