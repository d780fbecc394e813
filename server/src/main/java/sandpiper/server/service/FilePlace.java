package sandpiper.server.service;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.type.FileType;
import sandpiper.model.type.KeptFile;
import sandpiper.server.problem.ProblemException;

/**
 * Where a file stands in a record.
 *
 * @param part whose line item has it, or {@code null} for one of the record itself
 * @param line which line item
 * @param field its name
 */
public record FilePlace(@Nullable String part, long line, String field) {
    /** A file of the record itself. */
    public static FilePlace of(String field) {
        return new FilePlace(null, 0, field);
    }

    /** The file of a tree that stands there, alone; nothing when there is none. */
    public Optional<FieldTree> in(FieldTree tree) {
        if (part == null) {
            return path(tree.paths()).map(path -> new FieldTree(List.of(path), List.of()));
        }
        return tree.part(part)
                .flatMap(one ->
                        path(one.paths())
                                .map(path -> new FieldTree.PartTree(one.part(), List.of(path))))
                .map(one -> new FieldTree(List.of(), List.of(one)));
    }

    private Optional<FieldPath> path(List<FieldPath> paths) {
        return paths.stream()
                .filter(path -> path.isOwn() && path.last().name().equals(field))
                .filter(path -> path.last().type() instanceof FileType)
                .findFirst();
    }

    /**
     * The file, in a record that was read with the tree of {@link #in}; nothing when the field is
     * empty.
     *
     * @throws ProblemException 404 when there is no such line item
     */
    public Optional<KeptFile> of(RecordView view) {
        var values = part == null ? view.values() : item(view).values();
        return values[0] instanceof KeptFile file ? Optional.of(file) : Optional.empty();
    }

    private RecordView.ItemView item(RecordView view) {
        return view.parts().getFirst().stream()
                .filter(one -> one.line() == line)
                .findFirst()
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND, "There is no line item %d.".formatted(line)));
    }

    /**
     * The values of a change that puts a file there, and leaves all else as it is.
     *
     * @param view the record, read with the tree of {@link #in}; needed for a line item only
     * @param file in plain form, or {@code null} to take it away
     */
    public Map<String, @Nullable Object> change(@Nullable RecordView view, @Nullable Object file) {
        if (part == null || view == null) {
            return Collections.singletonMap(field, file);
        }
        item(view);
        var items = new ArrayList<Map<String, @Nullable Object>>();
        for (var one : view.parts().getFirst()) {
            var item = new LinkedHashMap<String, @Nullable Object>();
            item.put("line", one.line());
            if (one.line() == line) {
                item.put(field, file);
            }
            items.add(item);
        }
        return Map.of(part, items);
    }
}
