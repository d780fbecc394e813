package sandpiper.engine.read;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;

/**
 * Turns records into plain values: maps, lists, text, numbers and booleans, as any protocol can
 * write them.
 *
 * <p>A reference is the key of its record. Where fields of that record were chosen too, it is a map
 * of them, in which the key stands as {@code key}; an empty reference is {@code null} either way.
 */
public final class PlainRecords {
    /** The member of a nested record that holds its key. */
    public static final String KEY = "key";

    private PlainRecords() {}

    /**
     * The chosen fields of a record, empty ones as {@code null}, line items with their {@code
     * line}.
     */
    public static Map<String, @Nullable Object> of(FieldTree tree, RecordView view) {
        var plain = of(tree.paths(), view.values());
        for (int i = 0; i < tree.parts().size(); i++) {
            var part = tree.parts().get(i);
            var items = new ArrayList<Map<String, @Nullable Object>>();
            for (var item : view.parts().get(i)) {
                var one = new LinkedHashMap<String, @Nullable Object>();
                one.put("line", item.line());
                one.putAll(of(part.paths(), item.values()));
                items.add(one);
            }
            plain.put(part.part().name(), items);
        }
        return plain;
    }

    private static Map<String, @Nullable Object> of(
            List<FieldPath> paths, @Nullable Object[] values) {
        var plain = new LinkedHashMap<String, @Nullable Object>();
        for (int i = 0; i < paths.size(); i++) {
            put(plain, paths, paths.get(i), values[i]);
        }
        plain.replaceAll((_, value) -> value instanceof Nested nested ? nested.orNull() : value);
        return plain;
    }

    /** What is shown of the record a reference leads to. */
    private static final class Nested extends LinkedHashMap<String, @Nullable Object> {
        private static final long serialVersionUID = 1;

        /** {@code null} when there is no such record. */
        @Nullable Nested orNull() {
            replaceAll((_, value) -> value instanceof Nested nested ? nested.orNull() : value);
            boolean isEmpty =
                    containsKey(KEY)
                            ? get(KEY) == null
                            : values().stream().allMatch(Objects::isNull);
            return isEmpty ? null : this;
        }
    }

    private static void put(
            Map<String, @Nullable Object> plain,
            List<FieldPath> paths,
            FieldPath path,
            @Nullable Object value) {
        var steps = path.steps();
        Map<String, @Nullable Object> at = plain;
        for (var step : steps.subList(0, steps.size() - 1)) {
            at = nested(at, step);
        }
        var written = write(path.last(), value);
        if (isNested(paths, path)) {
            nested(at, path.last()).put(KEY, written);
        } else {
            at.put(path.last().name(), written);
        }
    }

    private static Nested nested(Map<String, @Nullable Object> in, Field step) {
        if (in.get(step.name()) instanceof Nested there) {
            return there;
        }
        var made = new Nested();
        in.put(step.name(), made);
        return made;
    }

    /** Whether fields behind a reference were chosen too. */
    public static boolean isNested(List<FieldPath> paths, FieldPath reference) {
        int length = reference.steps().size();
        return paths.stream()
                .anyMatch(path ->
                        path.steps().size() > length
                                && path.steps().subList(0, length).equals(reference.steps()));
    }

    /** The plain form of one value. */
    public static @Nullable Object write(Field field, @Nullable Object value) {
        if (value == null) {
            return null;
        }
        return value instanceof RecordView.Link link ? link.key() : field.type().write(value);
    }
}
