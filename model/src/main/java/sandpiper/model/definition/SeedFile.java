package sandpiper.model.definition;

import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Records that come with a package: {@code data/Tariff.csv}. A release makes those that are new in
 * it; what people made or changed stays theirs.
 *
 * @param path of the file, from the package's folder on
 * @param packageName the package they come with
 * @param object whose records they are
 * @param fields those it has columns for
 * @param rows in the order of the file
 */
public record SeedFile(
        String path, String packageName, String object, Set<String> fields, List<Row> rows) {
    public SeedFile {
        fields = Set.copyOf(fields);
        rows = List.copyOf(rows);
    }

    /**
     * A record.
     *
     * @param line where it stands in the file, from 1
     * @param key its key as in an address
     * @param values by the names of fields, as text; texts by language of a localised field; none
     *     of what is empty
     */
    public record Row(int line, String key, Map<String, Object> values) {
        public Row {
            values = Map.copyOf(values);
        }
    }
}
