package sandpiper.store.generated;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.store.generated.Model.FieldSpec;
import sandpiper.store.generated.Model.Kind;
import sandpiper.store.generated.Model.ObjectSpec;

/** What records there should be, as plain values in memory. */
final class Mirror {
    private final Map<String, Row> rows = new LinkedHashMap<>();

    /** A record, or a line item when it has an owner. */
    static final class Row {
        private final ObjectSpec object;
        private final int serial;
        private final @Nullable Row owner;
        private final Map<String, @Nullable Object> values = new HashMap<>();
        private final List<Row> lines = new ArrayList<>();
        private boolean retired;

        private Row(ObjectSpec object, int serial, @Nullable Row owner) {
            this.object = object;
            this.serial = serial;
            this.owner = owner;
        }

        ObjectSpec object() {
            return object;
        }

        int serial() {
            return serial;
        }

        @Nullable Row owner() {
            return owner;
        }

        String key() {
            return object.key(serial);
        }

        boolean retired() {
            return retired;
        }

        List<Row> lines() {
            return lines;
        }

        /** A stored value: as it was sent, a reference as the key of its record. */
        @Nullable Object value(FieldSpec field) {
            return values.get(field.name());
        }
    }

    Mirror copy() {
        var copy = new Mirror();
        rows.forEach((name, row) -> {
            var other = new Row(row.object, row.serial, null);
            other.values.putAll(row.values);
            other.retired = row.retired;
            row.lines.forEach(line -> copy.line(other, line.values));
            copy.rows.put(name, other);
        });
        return copy;
    }

    private static String name(ObjectSpec object, String key) {
        return object.name() + "/" + key;
    }

    List<Row> all() {
        return List.copyOf(rows.values());
    }

    List<Row> of(ObjectSpec object) {
        return rows.values().stream().filter(row -> row.object == object).toList();
    }

    @Nullable Row find(ObjectSpec object, String key) {
        return rows.get(name(object, key));
    }

    Row row(ObjectSpec object, String key) {
        return Objects.requireNonNull(find(object, key));
    }

    Row create(ObjectSpec object, int serial, Map<String, @Nullable Object> values) {
        var row = new Row(object, serial, null);
        rows.put(name(object, row.key()), row);
        change(row, values);
        return row;
    }

    @SuppressWarnings("unchecked")
    void change(Row row, Map<String, @Nullable Object> values) {
        values.forEach((name, value) -> {
            if (name.equals("lines")) {
                row.lines.clear();
                ((List<Map<String, @Nullable Object>>) Objects.requireNonNull(value))
                        .forEach(line -> line(row, line));
            } else {
                row.values.put(name, value);
            }
        });
    }

    void line(Row row, Map<String, @Nullable Object> values) {
        var line = new Row(row.object, row.serial, row);
        line.values.putAll(values);
        row.lines.add(line);
    }

    void set(Row row, String field, @Nullable Object value) {
        row.values.put(field, value);
    }

    void retire(Row row, boolean now) {
        row.retired = now;
    }

    void delete(Row row) {
        rows.remove(name(row.object, row.key()));
    }

    boolean isReferredTo(Row row) {
        for (var other : rows.values()) {
            if (other != row && refersTo(other, other.object.fields(), row)) {
                return true;
            }
            for (var line : other.lines) {
                if (other != row && refersTo(line, other.object.lines(), row)) {
                    return true;
                }
            }
        }
        return false;
    }

    private static boolean refersTo(Row from, List<FieldSpec> fields, Row to) {
        return fields.stream()
                .filter(field -> field.kind() == Kind.REFERENCE && field.to() == to.object)
                .anyMatch(field -> to.key().equals(from.value(field)));
    }

    /** Those in use that point to a record by a reference. */
    List<Row> pointing(Row to, FieldSpec by) {
        return rows.values().stream()
                .filter(row -> row.object == by.owner() && !row.retired)
                .filter(row -> to.key().equals(row.value(by)))
                .toList();
    }
}
