package sandpiper.cli.records;

import java.io.IOException;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import sandpiper.client.ManageClient;

/**
 * A file of the rows an import refused, each with its number and why, in the form of the imported
 * file: mended, it can be imported itself.
 */
public final class RefusedRows implements AutoCloseable {
    /** The column, or member, with the row's number. */
    static final String ROW = "refusedRow";

    /** The column, or member, that says why. */
    static final String WHY = "refusedBecause";

    private final List<String> columns;
    private final Writer out;
    private final @Nullable CSVPrinter csv;

    /** Writes to a file; {@code columns} are empty for JSON Lines. */
    RefusedRows(Path file, List<String> columns) throws IOException {
        this.columns = columns.stream().filter(name -> !isOurs(name)).toList();
        out = Files.newBufferedWriter(file);
        csv = columns.isEmpty() ? null : CSVFormat.RFC4180.print(out);
        if (csv != null) {
            var header = new ArrayList<>(this.columns);
            header.add(ROW);
            header.add(WHY);
            csv.printRecord(header);
        }
    }

    /** Whether a name is one that this file adds, which an import leaves out. */
    static boolean isOurs(String name) {
        return name.equals(ROW) || name.equals(WHY);
    }

    void add(long row, Map<String, Object> values, List<String> why) throws IOException {
        var said = String.join(" ", why);
        if (csv == null) {
            var line = new LinkedHashMap<>(values);
            line.put(ROW, row);
            line.put(WHY, said);
            out.write(ManageClient.write(line));
            out.write('\n');
            return;
        }
        var cells = new ArrayList<@Nullable Object>();
        columns.forEach(name -> cells.add(cell(values, name, 0)));
        cells.add(row);
        cells.add(said);
        csv.printRecord(cells);
        for (int i = 1; i < lines(values); i++) {
            int place = i;
            var more = new ArrayList<@Nullable Object>();
            columns.forEach(name -> more.add(cell(values, name, place)));
            more.add(row);
            csv.printRecord(more);
        }
    }

    /** How many rows a record takes: one for each line item of its longest part. */
    private static int lines(Map<String, Object> values) {
        return values.values().stream()
                .filter(List.class::isInstance)
                .mapToInt(list -> ((List<?>) list).size())
                .max()
                .orElse(1);
    }

    private static @Nullable Object cell(Map<String, Object> values, String column, int place) {
        int dot = column.indexOf('.');
        if (dot < 0) {
            return values.get(column);
        }
        return switch (values.get(column.substring(0, dot))) {
            case Map<?, ?> languages ->
                    place == 0 ? languages.get(column.substring(dot + 1)) : null;
            case List<?> items when place < items.size() ->
                    ((Map<?, ?>) items.get(place)).get(column.substring(dot + 1));
            case null, default -> null;
        };
    }

    @Override
    public void close() throws IOException {
        out.close();
    }
}
