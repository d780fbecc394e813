package sandpiper.store.move;

import java.util.List;

/**
 * A table that is carried over.
 *
 * @param numbering the column whose numbers the engine gives by itself, or empty
 */
record MovedTable(String name, List<String> columns, List<String> key, String numbering) {
    MovedTable {
        columns = List.copyOf(columns);
        key = List.copyOf(key);
    }
}
