package sandpiper.cli.records;

import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.client.ManageClient;
import sandpiper.client.RecordCalls;
import sandpiper.client.RefusedException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Files of records, as the command line sends and gets them. */
final class RecordFiles {
    private static final String SHA256 = "sha256";
    private static final String CONTENT = "content";

    private RecordFiles() {}

    static boolean isOne(JsonNode value) {
        return value.isObject() && value.has(SHA256) && value.has("size");
    }

    /** A file as a value is called in lists: its name. */
    static String name(JsonNode file) {
        return file.path("name").asString();
    }

    /** A file as import reads it from text: with its bytes when they are there. */
    static String text(JsonNode file) {
        if (!file.has(CONTENT)) {
            return "%s; type=%s; size=%d; sha256=%s"
                    .formatted(
                            name(file),
                            file.path("type").asString(),
                            file.path("size").asLong(),
                            file.path(SHA256).asString());
        }
        return "data:%s;name=%s;base64,%s"
                .formatted(
                        file.path("type").asString(),
                        URLEncoder.encode(name(file), StandardCharsets.UTF_8).replace("+", "%20"),
                        file.path(CONTENT).asString());
    }

    /** Puts the bytes of a record's files, and of those of its line items, beside their names. */
    static void fill(ManageClient client, String object, RecordCalls.Stored record) {
        record.values()
                .properties()
                .forEach(value -> {
                    var name = value.getKey();
                    if (value.getValue() instanceof ObjectNode file && isOne(file)) {
                        fill(client, object, record.id(), name, file);
                    }
                    for (var item :
                            value.getValue().isArray() ? value.getValue() : List.<JsonNode>of()) {
                        item.properties()
                                .forEach(one -> {
                                    if (one.getValue() instanceof ObjectNode file && isOne(file)) {
                                        var place =
                                                "%s/%d/%s"
                                                        .formatted(
                                                                name,
                                                                item.path("line").asLong(),
                                                                one.getKey());
                                        fill(client, object, record.id(), place, file);
                                    }
                                });
                    }
                });
    }

    private static void fill(
            ManageClient client, String object, String id, String place, ObjectNode file) {
        file.put(
                CONTENT,
                Base64.getEncoder().encodeToString(client.records().file(object, id, place)));
    }

    /**
     * Adds files to the values of a record, each as {@code FIELD=FILE}.
     *
     * @throws RefusedException when one is not written so, or cannot be read
     */
    static void attach(Map<String, @Nullable Object> values, List<String> attached) {
        for (var one : attached) {
            int equals = one.indexOf('=');
            if (equals < 1) {
                throw new RefusedException(
                        0, "Write files as FIELD=FILE, not %s.".formatted(one), List.of());
            }
            var path = Path.of(one.substring(equals + 1));
            var file = new LinkedHashMap<String, Object>();
            file.put("name", String.valueOf(path.getFileName()));
            try {
                file.put(CONTENT, Base64.getEncoder().encodeToString(Files.readAllBytes(path)));
            } catch (IOException _) {
                throw new RefusedException(
                        0, "The file %s cannot be read.".formatted(path), List.of());
            }
            ValueArguments.put(values, one.substring(0, equals), file);
        }
    }
}
