package sandpiper.server.odata.metadata;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeKind;
import org.apache.olingo.commons.api.edm.FullQualifiedName;
import org.apache.olingo.commons.api.edm.provider.CsdlComplexType;
import org.apache.olingo.commons.api.edm.provider.CsdlProperty;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.release.Field;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.ValueType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.OutsideChoiceType;
import sandpiper.model.type.TextType;

/** The types of values: primitive ones, and complex ones made when they are first needed. */
public final class EdmTypes {
    /** What fits into a stored number. */
    private static final int DIGITS = 19;

    private final String namespace;
    private final Map<String, CsdlComplexType> made = new LinkedHashMap<>();

    EdmTypes(String namespace) {
        this.namespace = namespace;
    }

    List<CsdlComplexType> made() {
        return List.copyOf(made.values());
    }

    /** A property of a field's type. */
    CsdlProperty property(String name, Field field) {
        var property = new CsdlProperty().setName(name);
        return switch (field.type()) {
            case MoneyType money -> property.setType(money(money));
            case FileType file -> of(property, file);
            case TextType text when text.isLocalised() -> property.setType(localised(text));
            case TextType text -> of(property, text).setMaxLength(text.length());
            case OutsideChoiceType outside ->
                    of(property, outside).setMaxLength(OutsideChoiceType.LONGEST);
            case NumberType number when primitive(number) == EdmPrimitiveTypeKind.Decimal ->
                    of(property, number).setPrecision(DIGITS).setScale(number.scale());
            default -> {
                of(property, field.type());
                yield primitive(field.type()) == EdmPrimitiveTypeKind.DateTimeOffset
                                || primitive(field.type()) == EdmPrimitiveTypeKind.Duration
                                || primitive(field.type()) == EdmPrimitiveTypeKind.TimeOfDay
                        ? property.setPrecision(6)
                        : property;
            }
        };
    }

    private static CsdlProperty of(CsdlProperty property, FieldType type) {
        return property.setType(primitive(type).getFullQualifiedName());
    }

    /** The primitive type of a value that has one. */
    public static EdmPrimitiveTypeKind primitive(FieldType type) {
        return switch (type.keyword()) {
            case INTEGER -> EdmPrimitiveTypeKind.Int64;
            case DECIMAL, PERCENT, AMOUNT -> EdmPrimitiveTypeKind.Decimal;
            case BOOLEAN -> EdmPrimitiveTypeKind.Boolean;
            case DATE -> EdmPrimitiveTypeKind.Date;
            case TIME -> EdmPrimitiveTypeKind.TimeOfDay;
            case DATE_TIME -> EdmPrimitiveTypeKind.DateTimeOffset;
            case DURATION -> EdmPrimitiveTypeKind.Duration;
            case UUID -> EdmPrimitiveTypeKind.Guid;
            case FILE -> EdmPrimitiveTypeKind.Stream;
            default -> EdmPrimitiveTypeKind.String;
        };
    }

    /** Whether a value has properties of its own. */
    public static boolean isComplex(FieldType type) {
        return type instanceof MoneyType || (type instanceof TextType text && text.isLocalised());
    }

    /**
     * The type of what a function takes or gives back.
     *
     * @param name of the complex type that is made for a context
     */
    CsdlProperty value(String name, ValueType type) {
        return switch (type) {
            case ValueType.Single(var field) -> property(name, field);
            case ValueType.Many(var item) -> value(name, item).setCollection(true);
            case ValueType.Group group -> {
                var made = ResourceNames.capital(name);
                this.made.putIfAbsent(
                        made,
                        new CsdlComplexType()
                                .setName(made)
                                .setProperties(
                                        group.entries().stream()
                                                .map(entry ->
                                                        value(made, entry)
                                                                .setName(entry.name())
                                                                .setNullable(!entry.required()))
                                                .toList()));
                yield new CsdlProperty()
                        .setName(name)
                        .setType(new FullQualifiedName(namespace, made));
            }
        };
    }

    private CsdlProperty value(String owner, Parameter entry) {
        return value(owner + ResourceNames.capital(entry.name()), entry.type());
    }

    private FullQualifiedName money(MoneyType money) {
        var name = "Money" + money.scale();
        made.computeIfAbsent(
                name,
                _ ->
                        new CsdlComplexType()
                                .setName(name)
                                .setProperties(
                                        List.of(
                                                new CsdlProperty()
                                                        .setName("value")
                                                        .setType(
                                                                EdmPrimitiveTypeKind.Decimal
                                                                        .getFullQualifiedName())
                                                        .setPrecision(DIGITS)
                                                        .setScale(money.scale())
                                                        .setNullable(false),
                                                new CsdlProperty()
                                                        .setName("currency")
                                                        .setType(
                                                                EdmPrimitiveTypeKind.String
                                                                        .getFullQualifiedName())
                                                        .setMaxLength(3)
                                                        .setNullable(false))));
        return new FullQualifiedName(namespace, name);
    }

    private FullQualifiedName localised(TextType text) {
        var name =
                "Text"
                        + String.join(
                                "", text.languages().stream().map(ResourceNames::capital).toList());
        made.computeIfAbsent(
                name,
                _ -> {
                    var properties = new ArrayList<CsdlProperty>();
                    text.languages()
                            .forEach(language ->
                                    properties.add(
                                            new CsdlProperty()
                                                    .setName(language)
                                                    .setType(
                                                            EdmPrimitiveTypeKind.String
                                                                    .getFullQualifiedName())));
                    return new CsdlComplexType().setName(name).setProperties(properties);
                });
        return new FullQualifiedName(namespace, name);
    }
}
