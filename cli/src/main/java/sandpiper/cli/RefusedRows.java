package sandpiper.cli;

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
final class RefusedRows implements AutoCloseable {
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
        columns.forEach(name -> cells.add(values.get(name)));
        cells.add(row);
        cells.add(said);
        csv.printRecord(cells);
    }

    @Override
    public void close() throws IOException {
        out.close();
    }
}
