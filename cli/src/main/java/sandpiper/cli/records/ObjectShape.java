package sandpiper.cli.records;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import tools.jackson.databind.JsonNode;

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
        client.get("/manage/v1/model")
                .path("objects")
                .forEach(object -> shapes.put(object.path("name").asString(), of(object)));
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

    private static ObjectShape of(JsonNode object) {
        var key = new ArrayList<String>();
        object.path("key").forEach(field -> key.add(field.asString()));
        var languages = new LinkedHashMap<String, List<String>>();
        var refersTo = new TreeSet<String>();
        object.path("fields").forEach(field -> read(field, languages, refersTo));
        var parts = new LinkedHashMap<String, List<String>>();
        for (var part : object.path("parts")) {
            var fields = new ArrayList<String>();
            part.path("fields")
                    .forEach(field -> {
                        var name = field.path("name").asString();
                        var own = new LinkedHashMap<String, List<String>>();
                        read(field, own, refersTo);
                        if (own.containsKey(name)) {
                            own.get(name).forEach(one -> fields.add(name + "." + one));
                        } else {
                            fields.add(name);
                        }
                    });
            parts.put(part.path("name").asString(), fields);
        }
        return new ObjectShape(object.path("name").asString(), key, languages, parts, refersTo);
    }

    private static void read(
            JsonNode field, Map<String, List<String>> languages, Set<String> refersTo) {
        if (!field.path("languages").isEmpty()) {
            var all = new ArrayList<String>();
            field.path("languages").forEach(language -> all.add(language.asString()));
            languages.put(field.path("name").asString(), all);
        }
        if (field.path("to").isString()) {
            refersTo.add(field.path("to").asString());
        }
    }
}
