package sandpiper.cli.records;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import sandpiper.client.DraftCalls;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;

/**
 * What the command line must know of an object to write its records as rows and to read them again.
 *
 * @param key the fields of its key; empty when it has none
 * @param languages of each localised field, by its name
 * @param parts the fields of each part by its name, a localised one once for each language
 * @param refersTo the objects its records and line items refer to
 */
public record ObjectShape(
        String name,
        List<String> key,
        Map<String, List<String>> languages,
        Map<String, List<String>> parts,
        Set<String> refersTo) {

    /** All objects of the live release by name. */
    static Map<String, ObjectShape> all(ManageClient client) {
        var shapes = new LinkedHashMap<String, ObjectShape>();
        client.draft().objects().forEach(object -> shapes.put(object.name(), of(object)));
        return shapes;
    }

    /** One object. */
    static ObjectShape of(ManageClient client, String name) {
        var shape = all(client).get(name);
        if (shape == null) {
            throw new RefusedException(404, "There is no object %s.".formatted(name), List.of());
        }
        return shape;
    }

    private static ObjectShape of(DraftCalls.ObjectType object) {
        var languages = new LinkedHashMap<String, List<String>>();
        var refersTo = new TreeSet<String>();
        object.fields().forEach(field -> read(field, languages, refersTo));
        var parts = new LinkedHashMap<String, List<String>>();
        for (var part : object.parts()) {
            var fields = new ArrayList<String>();
            for (var field : part.fields()) {
                var own = new LinkedHashMap<String, List<String>>();
                read(field, own, refersTo);
                if (own.containsKey(field.name())) {
                    own.get(field.name()).forEach(one -> fields.add(field.name() + "." + one));
                } else {
                    fields.add(field.name());
                }
            }
            parts.put(part.name(), fields);
        }
        return new ObjectShape(object.name(), object.key(), languages, parts, refersTo);
    }

    private static void read(
            DraftCalls.Field field, Map<String, List<String>> languages, Set<String> refersTo) {
        if (!field.languages().isEmpty()) {
            languages.put(field.name(), field.languages());
        }
        if (field.to() != null) {
            refersTo.add(field.to());
        }
    }
}
