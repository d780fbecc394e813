package sandpiper.server.odata.metadata;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.olingo.commons.api.edm.provider.CsdlAnnotation;
import org.apache.olingo.commons.api.edm.provider.CsdlComplexType;
import org.apache.olingo.commons.api.edm.provider.CsdlEntityContainer;
import org.apache.olingo.commons.api.edm.provider.CsdlEntityType;
import org.apache.olingo.commons.api.edm.provider.CsdlNavigationProperty;
import org.apache.olingo.commons.api.edm.provider.CsdlOperation;
import org.apache.olingo.commons.api.edm.provider.CsdlParameter;
import org.apache.olingo.commons.api.edm.provider.CsdlProperty;
import org.apache.olingo.commons.api.edm.provider.CsdlPropertyRef;
import org.apache.olingo.commons.api.edm.provider.CsdlReturnType;
import org.apache.olingo.commons.api.edm.provider.CsdlSchema;
import org.apache.olingo.commons.api.edm.provider.CsdlStructuralType;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlCollection;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlConstantExpression;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlExpression;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlPropertyPath;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlRecord;
import org.apache.olingo.commons.api.edmx.EdmxReference;
import org.jspecify.annotations.Nullable;

/**
 * The metadata of a service in JSON (CSDL JSON 4.01), as plain values. The library writes an older
 * form, which says other things than the XML.
 */
public final class CsdlJson {
    private static final String KIND = "$Kind";
    private static final String TYPE = "$Type";
    private static final String COLLECTION = "$Collection";

    private CsdlJson() {}

    /** The whole document, of a version such as {@code 4.01}. */
    public static Map<String, Object> of(
            ServiceModel model, List<EdmxReference> references, String version) {
        var schema = model.getSchemas().getFirst();
        var document = new LinkedHashMap<String, Object>();
        document.put("$Version", version);
        document.put(
                "$EntityContainer",
                schema.getNamespace() + "." + schema.getEntityContainer().getName());
        document.put("$Reference", references(references));
        document.put(schema.getNamespace(), schema(schema));
        return document;
    }

    private static Map<String, Object> references(List<EdmxReference> references) {
        var all = new LinkedHashMap<String, Object>();
        for (var reference : references) {
            var includes = new ArrayList<Object>();
            for (var include : reference.getIncludes()) {
                var one = new LinkedHashMap<String, Object>();
                one.put("$Namespace", include.getNamespace());
                one.put("$Alias", include.getAlias());
                includes.add(one);
            }
            all.put(reference.getUri().toString(), Map.of("$Include", includes));
        }
        return all;
    }

    private static Map<String, Object> schema(CsdlSchema schema) {
        var all = new LinkedHashMap<String, Object>();
        schema.getEntityTypes().forEach(type -> all.put(type.getName(), entityType(type)));
        schema.getComplexTypes().forEach(type -> all.put(type.getName(), complexType(type)));
        schema.getActions()
                .forEach(action -> overload(all, action.getName(), operation(action, "Action")));
        for (var function : schema.getFunctions()) {
            var written = operation(function, "Function");
            if (function.isComposable()) {
                written.put("$IsComposable", true);
            }
            overload(all, function.getName(), written);
        }
        var container = schema.getEntityContainer();
        all.put(container.getName(), container(container));
        return all;
    }

    /** Operations of one name stand in one list. */
    @SuppressWarnings("unchecked") // only lists made here stand under names of operations
    private static void overload(Map<String, Object> all, String name, Object operation) {
        ((List<Object>) all.computeIfAbsent(name, _ -> new ArrayList<>())).add(operation);
    }

    private static Map<String, Object> entityType(CsdlEntityType type) {
        var written = new LinkedHashMap<String, Object>();
        written.put(KIND, "EntityType");
        // What is only shown behind a reference has no address of its own.
        List<CsdlPropertyRef> key = type.getKey();
        if (key != null && !key.isEmpty()) {
            written.put("$Key", key.stream().map(CsdlPropertyRef::getName).toList());
        }
        return members(written, type);
    }

    private static Map<String, Object> complexType(CsdlComplexType type) {
        var written = new LinkedHashMap<String, Object>();
        written.put(KIND, "ComplexType");
        return members(written, type);
    }

    private static Map<String, Object> members(
            Map<String, Object> written, CsdlStructuralType type) {
        type.getProperties().forEach(one -> written.put(one.getName(), property(one)));
        type.getNavigationProperties().forEach(one -> written.put(one.getName(), navigation(one)));
        annotate(written, type.getAnnotations());
        return written;
    }

    private static Map<String, Object> property(CsdlProperty property) {
        var written = new LinkedHashMap<String, Object>();
        type(written, property.getType(), property.isCollection(), property.isNullable());
        facets(
                written,
                property.getType(),
                property.getMaxLength(),
                property.getPrecision(),
                property.getScale());
        annotate(written, property.getAnnotations());
        return written;
    }

    /** What is not said means a text that is there; in XML it means something else. */
    private static void type(
            Map<String, Object> written, String type, boolean collection, boolean nullable) {
        if (!type.equals("Edm.String")) {
            written.put(TYPE, type);
        }
        if (collection) {
            written.put(COLLECTION, true);
        }
        if (nullable) {
            written.put("$Nullable", true);
        }
    }

    private static void facets(
            Map<String, Object> written,
            String type,
            @Nullable Integer maxLength,
            @Nullable Integer precision,
            @Nullable Integer scale) {
        if (maxLength != null) {
            written.put("$MaxLength", maxLength);
        }
        if (precision != null) {
            written.put("$Precision", precision);
        }
        if (type.equals("Edm.Decimal")) {
            written.put("$Scale", scale == null ? 0 : scale);
        }
    }

    private static Map<String, Object> navigation(CsdlNavigationProperty navigation) {
        var written = new LinkedHashMap<String, Object>();
        written.put(KIND, "NavigationProperty");
        type(
                written,
                navigation.getType(),
                navigation.isCollection(),
                !navigation.isCollection() && !Boolean.FALSE.equals(navigation.isNullable()));
        if (navigation.isContainsTarget()) {
            written.put("$ContainsTarget", true);
        }
        annotate(written, navigation.getAnnotations());
        return written;
    }

    private static Map<String, Object> operation(CsdlOperation operation, String kind) {
        var written = new LinkedHashMap<String, Object>();
        written.put(KIND, kind);
        if (operation.isBound()) {
            written.put("$IsBound", true);
        }
        if (operation.getEntitySetPath() != null) {
            written.put("$EntitySetPath", operation.getEntitySetPath());
        }
        if (!operation.getParameters().isEmpty()) {
            written.put(
                    "$Parameter",
                    operation.getParameters().stream().map(CsdlJson::parameter).toList());
        }
        if (operation.getReturnType() != null) {
            written.put("$ReturnType", returned(operation.getReturnType()));
        }
        annotate(written, operation.getAnnotations());
        return written;
    }

    private static Map<String, Object> parameter(CsdlParameter parameter) {
        var written = new LinkedHashMap<String, Object>();
        written.put("$Name", parameter.getName());
        type(written, parameter.getType(), parameter.isCollection(), parameter.isNullable());
        facets(
                written,
                parameter.getType(),
                parameter.getMaxLength(),
                parameter.getPrecision(),
                parameter.getScale());
        annotate(written, parameter.getAnnotations());
        return written;
    }

    private static Map<String, Object> returned(CsdlReturnType type) {
        var written = new LinkedHashMap<String, Object>();
        type(written, type.getType(), type.isCollection(), type.isNullable());
        facets(written, type.getType(), type.getMaxLength(), type.getPrecision(), type.getScale());
        return written;
    }

    private static Map<String, Object> container(CsdlEntityContainer container) {
        var written = new LinkedHashMap<String, Object>();
        written.put(KIND, "EntityContainer");
        for (var set : container.getEntitySets()) {
            var one = new LinkedHashMap<String, Object>();
            one.put(COLLECTION, true);
            one.put(TYPE, set.getType());
            if (!set.getNavigationPropertyBindings().isEmpty()) {
                var bindings = new LinkedHashMap<String, Object>();
                set.getNavigationPropertyBindings()
                        .forEach(binding -> bindings.put(binding.getPath(), binding.getTarget()));
                one.put("$NavigationPropertyBinding", bindings);
            }
            annotate(one, set.getAnnotations());
            written.put(set.getName(), one);
        }
        container
                .getActionImports()
                .forEach(one -> written.put(one.getName(), Map.of("$Action", one.getAction())));
        container
                .getFunctionImports()
                .forEach(one -> written.put(one.getName(), Map.of("$Function", one.getFunction())));
        annotate(written, container.getAnnotations());
        return written;
    }

    private static void annotate(
            Map<String, Object> written, @Nullable List<CsdlAnnotation> annotations) {
        if (annotations != null) {
            annotations.forEach(
                    one -> written.put("@" + one.getTerm(), value(one.getExpression())));
        }
    }

    private static Object value(CsdlExpression expression) {
        return switch (expression) {
            case CsdlConstantExpression constant -> constant(constant);
            case CsdlPropertyPath path -> path.getValue();
            case CsdlCollection list -> list.getItems().stream().map(CsdlJson::value).toList();
            case CsdlRecord record -> {
                var written = new LinkedHashMap<String, Object>();
                record.getPropertyValues()
                        .forEach(one -> written.put(one.getProperty(), value(one.getValue())));
                annotate(written, record.getAnnotations());
                yield written;
            }
            default ->
                    throw new IllegalStateException(
                            "No annotation here has a " + expression.getClass().getSimpleName());
        };
    }

    /** A member of an enumeration is its name alone. */
    private static Object constant(CsdlConstantExpression constant) {
        var text = constant.getValue();
        return switch (constant.getType()) {
            case Bool -> Boolean.valueOf(text);
            case Int -> Long.valueOf(text);
            case Decimal -> new BigDecimal(text);
            case EnumMember -> text.substring(text.lastIndexOf('/') + 1);
            default -> text;
        };
    }
}
