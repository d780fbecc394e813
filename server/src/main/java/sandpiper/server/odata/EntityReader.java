package sandpiper.server.odata;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import sandpiper.model.type.FileBytes;
import sandpiper.model.type.FileType;
import sandpiper.model.type.NumberType;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.metadata.EntityShape.Value;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.service.FileTransfer;

/**
 * Turns an entity in JSON into values as commands take them. What only the service sets is passed
 * over, as the standard has it; what there is not is refused.
 *
 * @param numbersAsText whether numbers may come as text
 * @param bound finds the key that a link to another entity means, by the reference's name
 */
public record EntityReader(
        boolean numbersAsText, BiFunction<EntityShape.ToOne, String, @Nullable String> bound) {

    /** {@code creating} tells a new entity from the change of one. */
    Map<String, @Nullable Object> values(
            EntityShape shape, Map<String, @Nullable Object> body, boolean creating) {
        var values = new LinkedHashMap<String, @Nullable Object>();
        body.forEach((name, given) -> {
            int annotation = name.indexOf('@');
            if (annotation >= 0) {
                annotation(shape, name, annotation, given, values);
            } else {
                property(shape, name, body, creating, values);
            }
        });
        return values;
    }

    private void annotation(
            EntityShape shape,
            String name,
            int at,
            @Nullable Object given,
            Map<String, @Nullable Object> values) {
        var term = name.substring(at + 1);
        switch (term.startsWith("odata.") ? term.substring("odata.".length()) : term) {
            case "bind" -> bind(shape, name, at, given, values);
            case "delta", "removed" ->
                    throw Refusals.notOffered(
                            "%s: line items are given whole, as a list.".formatted(name));
            default -> {
                // Control information of an entity that was read, and notes of the sender's.
            }
        }
    }

    private void bind(
            EntityShape shape,
            String name,
            int at,
            @Nullable Object given,
            Map<String, @Nullable Object> values) {
        var property = name.substring(0, at);
        var reference =
                shape.reference(property)
                        .orElseThrow(() ->
                                Refusals.unknown(shape.type().getName(), property, shape.names()));
        values.put(
                reference.path().last().name(),
                given == null ? null : bound.apply(reference, String.valueOf(given)));
    }

    private void property(
            EntityShape shape,
            String name,
            Map<String, @Nullable Object> body,
            boolean creating,
            Map<String, @Nullable Object> values) {
        var given = body.get(name);
        boolean known = name.equals(EntityShape.ID) || name.equals(EntityShape.VERSION);
        if (shape.own() && known) {
            return;
        }
        if (shape.key().equals(List.of(EntityShape.LINE)) && name.equals(EntityShape.LINE)) {
            values.put(name, number(given));
            return;
        }
        var items = shape.items(name);
        if (items.isPresent()) {
            values.put(name, items(items.get(), given, creating));
            return;
        }
        if (shape.reference(name).isPresent()) {
            throw Refusals.bad(
                    "%s cannot be written together with its record; give its key as %sKey, or a link as %s@bind."
                            .formatted(name, name, name));
        }
        var value =
                shape.value(name)
                        .orElseThrow(() ->
                                Refusals.unknown(shape.type().getName(), name, shape.names()));
        boolean computed = !value.use().creatable() && !value.use().updatable();
        boolean key = !creating && shape.key().contains(name);
        if (!computed && !key) {
            values.put(
                    value.path().last().name(),
                    value.path().last().type() instanceof FileType
                            ? file(name, given, body)
                            : plain(value, given));
        }
    }

    private @Nullable Object items(
            EntityShape.Items items, @Nullable Object given, boolean creating) {
        if (!(given instanceof List<?> list)) {
            return given;
        }
        var read = new ArrayList<@Nullable Object>();
        for (var one : list) {
            if (one instanceof Map<?, ?> members) {
                var body = new LinkedHashMap<String, @Nullable Object>();
                members.forEach((name, member) -> body.put(String.valueOf(name), member));
                read.add(values(items.target(), body, creating));
            } else {
                read.add(one);
            }
        }
        return read;
    }

    /** A stream that comes with its record: base64url, and beside it what it is. */
    private static @Nullable Object file(
            String name, @Nullable Object given, Map<String, @Nullable Object> body) {
        if (!(given instanceof String content)) {
            return given;
        }
        var type =
                Stream.of("@mediaContentType", "@odata.mediaContentType")
                        .map(term -> body.get(name + term))
                        .filter(String.class::isInstance)
                        .map(String.class::cast)
                        .findFirst()
                        .orElse(null);
        try {
            return FileTransfer.plain(null, type, FileBytes.ofBase64(content), name);
        } catch (IllegalArgumentException _) {
            throw Refusals.bad("%s must be a text in base64 (RFC 4648).".formatted(name));
        }
    }

    private @Nullable Object plain(Value value, @Nullable Object given) {
        return value.path().last().type() instanceof NumberType ? number(given) : given;
    }

    private @Nullable Object number(@Nullable Object given) {
        if (!numbersAsText || !(given instanceof String text)) {
            return given;
        }
        try {
            return sandpiper.server.json.NumberText.read(text);
        } catch (NumberFormatException _) {
            return given;
        }
    }
}
