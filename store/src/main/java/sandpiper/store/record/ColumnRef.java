package sandpiper.store.record;

import java.util.List;
import sandpiper.model.release.Field;

/**
 * A column of the record's own table, or of one reached through references.
 *
 * @param via the references on the way
 */
record ColumnRef(List<Field> via, String column) {
    ColumnRef {
        via = List.copyOf(via);
    }

    /** A column of the record's own table. */
    static ColumnRef own(String column) {
        return new ColumnRef(List.of(), column);
    }

    /** As text, to tell shapes of queries apart. */
    String path() {
        var text = new StringBuilder();
        via.forEach(step -> text.append(step.name()).append('.'));
        return text.append(column).toString();
    }
}
