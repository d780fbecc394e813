package sandpiper.cli.records;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.client.RecordCalls;
import tools.jackson.databind.JsonNode;

/**
 * Records as rows of a table: a column for each field, {@code name.de} for each language of a
 * localised one, {@code charges.tariff} for a field of line items (and {@code charges.text.de} for
 * a localised one). A record with several line items takes several rows, of which the first has the
 * record's own fields and the others its key.
 */
public final class RecordRows {
    private static final String RETIRED = "retired";
    private static final String LINE = "line";

    private final ObjectShape shape;

    RecordRows(ObjectShape shape) {
        this.shape = shape;
    }

    /** The names of the columns that records with values like these take. */
    List<String> columns(JsonNode values, boolean retired) {
        var columns = new ArrayList<String>();
        values.properties()
                .forEach(value -> {
                    var name = value.getKey();
                    var languages = shape.languages().get(name);
                    if (languages != null) {
                        languages.forEach(language -> columns.add(name + "." + language));
                    } else if (!shape.parts().containsKey(name)) {
                        columns.add(name);
                    }
                });
        shape.parts()
                .forEach((part, fields) -> {
                    columns.add(part + "." + LINE);
                    fields.forEach(field -> columns.add(part + "." + field));
                });
        if (retired) {
            columns.add(RETIRED);
        }
        return columns;
    }

    /** The rows of one record. */
    List<List<String>> rows(List<String> columns, RecordCalls.Stored record) {
        var values = record.values();
        int count = 1;
        for (var part : shape.parts().keySet()) {
            count = Math.max(count, values.path(part).size());
        }
        var rows = new ArrayList<List<String>>();
        for (int i = 0; i < count; i++) {
            int place = i;
            rows.add(columns.stream().map(column -> cell(record, column, place)).toList());
        }
        return rows;
    }

    private String cell(RecordCalls.Stored record, String column, int place) {
        var values = record.values();
        int dot = column.indexOf('.');
        var head = dot < 0 ? column : column.substring(0, dot);
        if (dot > 0 && shape.parts().containsKey(head)) {
            var items = values.path(head);
            var at = place < items.size() ? items.get(place) : values.path("");
            for (var name : column.substring(dot + 1).split("\\.", 2)) {
                at = at.path(name);
            }
            return text(at);
        }
        if (place > 0 && !shape.key().contains(head)) {
            return "";
        }
        if (dot > 0) {
            return text(values.path(head).path(column.substring(dot + 1)));
        }
        return column.equals(RETIRED) && !values.has(RETIRED)
                ? String.valueOf(record.retired())
                : text(values.path(column));
    }

    /** A value as import reads it from text. */
    private static String text(JsonNode value) {
        if (value.isObject() && value.has("currency")) {
            return value.path("value").asString() + " " + value.path("currency").asString();
        }
        if (RecordFiles.isOne(value)) {
            return RecordFiles.text(value);
        }
        return value.isObject() && value.has("key")
                ? RecordsFindCommand.text(value.path("key"))
                : RecordsFindCommand.text(value);
    }

    /** Whether a row goes on with the line items of the record before it. */
    boolean goesOn(Map<String, Object> record, Map<String, Object> row) {
        return !shape.parts().isEmpty()
                && !shape.key().isEmpty()
                && shape.key().stream()
                        .allMatch(name ->
                                row.containsKey(name) && row.get(name).equals(record.get(name)));
    }

    /** Puts a row's values into a record, each into its language or line item. */
    void add(Map<String, Object> record, Map<String, Object> row) {
        var items = new LinkedHashMap<String, Map<String, Object>>();
        row.forEach((column, value) -> {
            int dot = column.indexOf('.');
            var head = dot < 0 ? column : column.substring(0, dot);
            var rest = dot < 0 ? "" : column.substring(dot + 1);
            if (dot > 0 && shape.parts().containsKey(head)) {
                var item = items.computeIfAbsent(head, _ -> new LinkedHashMap<>());
                int language = rest.indexOf('.');
                if (language < 0) {
                    item.put(rest, rest.equals(LINE) ? number(value) : value);
                } else {
                    nested(item, rest.substring(0, language))
                            .put(rest.substring(language + 1), value);
                }
            } else if (dot > 0 && shape.languages().containsKey(head)) {
                nested(record, head).put(rest, value);
            } else {
                record.putIfAbsent(column, value);
            }
        });
        items.forEach((part, item) -> list(record, part).add(item));
    }

    private static Object number(Object text) {
        return String.valueOf(text).matches("\\d{1,15}") ? Long.valueOf(text.toString()) : text;
    }

    @SuppressWarnings("unchecked") // only maps made here stand there
    private static Map<String, Object> nested(Map<String, Object> record, String name) {
        return (Map<String, Object>)
                record.computeIfAbsent(name, _ -> new LinkedHashMap<String, Object>());
    }

    @SuppressWarnings("unchecked") // only lists made here stand there
    private static List<@Nullable Object> list(Map<String, Object> record, String part) {
        return (List<@Nullable Object>)
                record.computeIfAbsent(part, _ -> new ArrayList<@Nullable Object>());
    }
}
