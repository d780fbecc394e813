package sandpiper.server.odata;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import org.apache.olingo.commons.api.edm.EdmPrimitiveType;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeException;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeKind;
import org.apache.olingo.commons.core.edm.primitivetype.EdmPrimitiveTypeFactory;
import org.apache.olingo.server.api.uri.UriInfoResource;
import org.apache.olingo.server.api.uri.UriParameter;
import org.apache.olingo.server.api.uri.UriResourceAction;
import org.apache.olingo.server.api.uri.UriResourceComplexProperty;
import org.apache.olingo.server.api.uri.UriResourceCount;
import org.apache.olingo.server.api.uri.UriResourceEntitySet;
import org.apache.olingo.server.api.uri.UriResourceFunction;
import org.apache.olingo.server.api.uri.UriResourceNavigation;
import org.apache.olingo.server.api.uri.UriResourcePrimitiveProperty;
import org.apache.olingo.server.api.uri.UriResourceValue;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.KeyText;
import sandpiper.server.odata.metadata.EdmTypes;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.odata.request.Refusals;

/**
 * What a request is about: {@code stays('S-1')/vessel/name}.
 *
 * @param key as in addresses over REST, or {@code null} for the whole set
 * @param references the steps to records that are referred to
 * @param items the line items, or {@code null}
 * @param line which of them, or {@code null} for all
 * @param properties a value, and a value inside it; empty for a whole entity
 * @param action the action or function that is called, or {@code null}
 */
public record Address(
        String set,
        @Nullable String key,
        List<String> references,
        @Nullable String items,
        @Nullable Long line,
        List<String> properties,
        @Nullable String action) {

    static Address of(ServiceModel model, UriInfoResource uri) {
        var parts = uri.getUriResourceParts();
        if (!(parts.getFirst() instanceof UriResourceEntitySet first)) {
            throw Refusals.notOffered("An address begins with an entity set here.");
        }
        var set = first.getEntitySet().getName();
        var references = new ArrayList<String>();
        var properties = new ArrayList<String>();
        String items = null;
        Long line = null;
        String action = null;
        for (var part : parts.subList(1, parts.size())) {
            switch (part) {
                case UriResourceNavigation one when one.getProperty().isCollection() -> {
                    items = one.getProperty().getName();
                    line = line(one.getKeyPredicates(), uri);
                }
                case UriResourceNavigation one -> references.add(one.getProperty().getName());
                case UriResourcePrimitiveProperty one ->
                        properties.add(one.getProperty().getName());
                case UriResourceComplexProperty one -> properties.add(one.getProperty().getName());
                case UriResourceAction one -> action = one.getAction().getName();
                case UriResourceFunction one -> action = one.getFunction().getName();
                case UriResourceValue _, UriResourceCount _ -> {
                    // what is answered, not what it is about
                }
                default ->
                        throw Refusals.notOffered(
                                "%s is not offered in an address.".formatted(part));
            }
        }
        return new Address(
                set,
                first.getKeyPredicates().isEmpty()
                        ? null
                        : key(model.shape(set), first.getKeyPredicates(), uri),
                references,
                items,
                line,
                properties,
                action);
    }

    /** The key, for an address that has one. */
    String oneKey() {
        return Objects.requireNonNull(key);
    }

    /**
     * The key of an entity as one text.
     *
     * @param uri has the values of aliases; {@code null} where there are none
     */
    static String key(
            EntityShape shape, List<UriParameter> predicates, @Nullable UriInfoResource uri) {
        var given = new LinkedHashMap<String, UriParameter>();
        predicates.forEach(one -> given.put(one.getName(), one));
        var texts = new ArrayList<String>();
        for (var name : shape.key()) {
            var kind =
                    shape.value(name)
                            .map(value -> EdmTypes.primitive(value.path().last().type()))
                            .orElse(EdmPrimitiveTypeKind.Guid);
            texts.add(text(kind, Objects.requireNonNull(given.get(name)), uri));
        }
        return KeyText.join(texts);
    }

    private static @Nullable Long line(List<UriParameter> predicates, UriInfoResource uri) {
        return predicates.isEmpty()
                ? null
                : Long.valueOf(text(EdmPrimitiveTypeKind.Int64, predicates.getFirst(), uri));
    }

    /** A literal as it stands in the address, or behind the alias that stands there. */
    static @Nullable String written(UriParameter parameter, @Nullable UriInfoResource uri) {
        var alias = parameter.getAlias();
        if (alias == null) {
            return parameter.getText();
        }
        var value = uri == null ? null : uri.getValueForAlias(alias);
        if (value == null) {
            throw Refusals.bad(
                    "%s has no value; add &%s=... to the address.".formatted(alias, alias));
        }
        return value;
    }

    private static String text(
            EdmPrimitiveTypeKind kind, UriParameter parameter, @Nullable UriInfoResource uri) {
        var text = written(parameter, uri);
        if (text == null) {
            throw Refusals.bad("%s needs a value.".formatted(parameter.getName()));
        }
        EdmPrimitiveType type = EdmPrimitiveTypeFactory.getInstance(kind);
        try {
            return type.fromUriLiteral(text);
        } catch (EdmPrimitiveTypeException e) {
            throw Refusals.bad("%s is no key: %s".formatted(text, e.getMessage()));
        }
    }
}
