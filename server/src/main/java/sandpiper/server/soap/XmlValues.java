package sandpiper.server.soap;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.w3c.dom.Element;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ValueType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.server.json.NumberText;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.soap.xml.XmlText;

/**
 * Values between XML and their plain form. What is read has passed the schema, so that every value
 * has the form of its type.
 */
final class XmlValues {
    /** The element of one line item. */
    static final String ITEM = "item";

    private static final String INSTANCE = "http://www.w3.org/2001/XMLSchema-instance";
    private static final Pattern SPACE = Pattern.compile("\\s+");
    private static final Pattern ZONE = Pattern.compile("(Z|[+-]\\d{2}:\\d{2})$");

    private XmlValues() {}

    /** What an element says of a record, by the fields that may be given. */
    static Map<String, @Nullable Object> read(FieldTree tree, Element record) {
        var values = new LinkedHashMap<String, @Nullable Object>();
        for (var element : children(record)) {
            var name = element.getLocalName();
            var part = tree.part(name);
            if (part.isPresent()) {
                values.put(name, items(part.get(), element));
            } else {
                values.put(name, value(tree.paths(), element));
            }
        }
        return values;
    }

    /** What an element says for the parameters of a function. */
    static Map<String, @Nullable Object> arguments(ValueType.Group parameters, Element asked) {
        var given = new LinkedHashMap<String, @Nullable Object>();
        for (var child : children(asked)) {
            parameters
                    .entry(child.getLocalName())
                    .ifPresent(one ->
                            given.put(
                                    one.name(), isNil(child) ? null : argument(one.type(), child)));
        }
        return given;
    }

    private static Object argument(ValueType type, Element element) {
        return switch (type) {
            case ValueType.Single(var field) -> value(field, element);
            case ValueType.Many(var item) -> {
                var list = new ArrayList<Object>();
                children(element).forEach(child -> list.add(argument(item, child)));
                yield list;
            }
            case ValueType.Group group -> arguments(group, element);
        };
    }

    private static List<Object> items(FieldTree.PartTree part, Element list) {
        var items = new ArrayList<Object>();
        for (var element : children(list)) {
            var item = new LinkedHashMap<String, @Nullable Object>();
            for (var child : children(element)) {
                item.put(
                        child.getLocalName(),
                        child.getLocalName().equals("line")
                                ? (Object) Long.valueOf(text(child))
                                : value(part.paths(), child));
            }
            items.add(item);
        }
        return items;
    }

    private static @Nullable Object value(List<FieldPath> paths, Element element) {
        if (isNil(element)) {
            return null;
        }
        return paths.stream()
                .filter(path -> path.last().name().equals(element.getLocalName()))
                .findFirst()
                .map(path -> value(path.last(), element))
                .orElse(text(element));
    }

    private static Object value(Field field, Element element) {
        if (field.type() instanceof MoneyType) {
            var money = new LinkedHashMap<String, Object>();
            children(element)
                    .forEach(child ->
                            money.put(
                                    child.getLocalName(),
                                    child.getLocalName().equals("value")
                                            ? (Object) number(text(child))
                                            : text(child)));
            return money;
        }
        if (field.type() instanceof FileType) {
            return file(element);
        }
        if (field.type() instanceof TextType text && text.isLocalised()) {
            var texts = new LinkedHashMap<String, Object>();
            children(element).forEach(child -> texts.put(child.getLocalName(), raw(child)));
            return texts;
        }
        return value(field.type(), raw(element));
    }

    private static Map<String, Object> file(Element element) {
        var file = new LinkedHashMap<String, Object>();
        children(element)
                .forEach(child -> {
                    var name = child.getLocalName();
                    file.put(
                            name,
                            switch (name) {
                                case FileType.SIZE -> (Object) Long.valueOf(text(child));
                                // It may come in lines.
                                case FileType.CONTENT -> SPACE.matcher(raw(child)).replaceAll("");
                                case FileType.NAME -> raw(child);
                                default -> text(child);
                            });
                });
        return file;
    }

    /** A value by its lexical form in XML Schema, in plain form. */
    static Object value(FieldType type, String raw) {
        var text = raw.strip();
        return switch (type.keyword()) {
            case INTEGER -> Long.valueOf(text);
            case DECIMAL, PERCENT, AMOUNT -> number(text);
            case BOOLEAN -> text.equals("true") || text.equals("1");
            // Tools that know only moments send a date with the zone it was made in.
            case DATE, TIME -> ZONE.matcher(text).replaceFirst("");
            case DATE_TIME, DURATION, CHOICE, REFERENCE, UUID -> text;
            default -> raw;
        };
    }

    private static BigDecimal number(String text) {
        try {
            return NumberText.read(text);
        } catch (NumberFormatException e) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "A number cannot be read: %s.".formatted(e.getMessage()));
        }
    }

    private static boolean isNil(Element element) {
        var nil = element.getAttributeNS(INSTANCE, "nil");
        return nil.equals("true") || nil.equals("1");
    }

    /** The elements directly inside. */
    static List<Element> children(Element element) {
        var children = new ArrayList<Element>();
        for (var node = element.getFirstChild(); node != null; node = node.getNextSibling()) {
            if (node instanceof Element child) {
                children.add(child);
            }
        }
        return children;
    }

    /** The first element of a name directly inside, or {@code null}. */
    static @Nullable Element child(Element element, String name) {
        return children(element).stream()
                .filter(one -> name.equals(one.getLocalName()))
                .findFirst()
                .orElse(null);
    }

    /** The text of the first element of a name, without space around it, or {@code null}. */
    static @Nullable String textOf(Element element, String name) {
        var child = child(element, name);
        return child == null ? null : text(child);
    }

    static String text(Element element) {
        return raw(element).strip();
    }

    private static String raw(Element element) {
        return String.valueOf(element.getTextContent());
    }

    /** Writes plain values as elements; what is empty is left out. */
    static void write(XmlText xml, Map<?, ?> values) {
        values.forEach((name, value) -> write(xml, String.valueOf(name), value));
    }

    /** Writes a plain value as an element, or nothing where it is empty. */
    static void write(XmlText xml, String name, @Nullable Object value) {
        switch (value) {
            case null -> {
                // An empty field has no element.
            }
            case Map<?, ?> map -> {
                xml.open(name);
                write(xml, map);
                xml.close();
            }
            case List<?> list -> {
                xml.open(name);
                list.forEach(item -> write(xml, ITEM, item));
                xml.close();
            }
            case BigDecimal number -> xml.text(name, number.toPlainString());
            default -> xml.text(name, value.toString());
        }
    }

    /** Whether values of a type can be compared by more and less. */
    static boolean isOrdered(FieldType type) {
        return switch (type.keyword()) {
            case INTEGER, DECIMAL, PERCENT, AMOUNT, DATE, TIME, DATE_TIME, DURATION -> true;
            default -> false;
        };
    }

    /** Whether a type's values are free text. */
    static boolean isText(FieldType type) {
        return type instanceof TextType
                || type.keyword() == TypeKeyword.REFERENCE
                || type.keyword() == TypeKeyword.UUID;
    }
}
