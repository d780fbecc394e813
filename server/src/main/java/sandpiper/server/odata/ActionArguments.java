package sandpiper.server.odata;

import java.util.LinkedHashMap;
import java.util.Map;
import org.apache.olingo.commons.api.edm.EdmParameter;
import org.apache.olingo.commons.api.edm.EdmPrimitiveType;
import org.apache.olingo.commons.api.edm.EdmPrimitiveTypeException;
import org.apache.olingo.commons.api.format.ContentType;
import org.apache.olingo.server.api.uri.UriInfo;
import org.apache.olingo.server.api.uri.UriResource;
import org.apache.olingo.server.api.uri.UriResourceAction;
import org.apache.olingo.server.api.uri.UriResourceFunction;
import org.jspecify.annotations.Nullable;
import sandpiper.server.json.JsonReader;
import sandpiper.server.json.NumberText;
import sandpiper.server.odata.request.Refusals;

/**
 * Reads what a caller gives for the parameters of an action, from the body, or of a function, from
 * the address.
 */
public final class ActionArguments {
    private ActionArguments() {}

    /** The name of what is called. */
    static String name(UriResource called) {
        return switch (called) {
            case UriResourceAction action -> action.getAction().getName();
            case UriResourceFunction function -> function.getFunction().getName();
            default -> throw Refusals.notOffered("Nothing is called at this address.");
        };
    }

    /** {@code uri} has the values of aliases. */
    static Map<String, @Nullable Object> of(
            UriResource called, UriInfo uri, byte[] body, JsonReader json, ContentType sent) {
        if (called instanceof UriResourceFunction function) {
            return inAddress(function, uri);
        }
        if (body.length == 0) {
            return Map.of();
        }
        var given = new LinkedHashMap<>(json.object(body));
        given.keySet().removeIf(name -> name.contains("@"));
        if ("true".equals(sent.getParameter("IEEE754Compatible"))
                && called instanceof UriResourceAction action) {
            for (var name : action.getAction().getParameterNames()) {
                if (given.get(name) instanceof String text
                        && isNumber(action.getAction().getParameter(name))) {
                    given.put(name, number(text));
                }
            }
        }
        return given;
    }

    private static boolean isNumber(EdmParameter parameter) {
        var type = parameter.getType().getName();
        return type.equals("Decimal") || type.equals("Int64");
    }

    private static Object number(String text) {
        try {
            return NumberText.read(text);
        } catch (NumberFormatException _) {
            return text;
        }
    }

    private static Map<String, @Nullable Object> inAddress(
            UriResourceFunction function, UriInfo uri) {
        var given = new LinkedHashMap<String, @Nullable Object>();
        for (var parameter : function.getParameters()) {
            var text = Address.written(parameter, uri);
            var type = function.getFunction().getParameter(parameter.getName()).getType();
            if (text == null || text.equals("null")) {
                given.put(parameter.getName(), null);
            } else if (type instanceof EdmPrimitiveType primitive) {
                given.put(parameter.getName(), plain(primitive, text));
            }
        }
        return given;
    }

    private static Object plain(EdmPrimitiveType type, String literal) {
        try {
            var text = String.valueOf(type.fromUriLiteral(literal));
            return switch (type.getName()) {
                case "Decimal" -> NumberText.read(text);
                case "Int64" -> Long.valueOf(text);
                case "Boolean" -> Boolean.valueOf(text);
                default -> text;
            };
        } catch (EdmPrimitiveTypeException | NumberFormatException e) {
            throw Refusals.bad("%s is no value here: %s".formatted(literal, e.getMessage()));
        }
    }
}
