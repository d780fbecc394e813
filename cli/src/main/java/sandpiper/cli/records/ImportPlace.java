package sandpiper.cli.records;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import sandpiper.client.RefusedException;

/**
 * How far an import has come, kept beside its file so that it can go on after an interruption:
 * {@code owners.csv.imported}. It is gone when the import is done.
 */
public final class ImportPlace {
    private final Path file;
    private final String what;

    ImportPlace(Path imported, String object, String server) {
        file = imported.resolveSibling(imported.getFileName() + ".imported");
        what = object + " " + server;
    }

    /** The rows that are done; 0 when nothing is known. */
    long read() throws IOException {
        if (!Files.exists(file)) {
            return 0;
        }
        var lines = Files.readAllLines(file);
        if (lines.size() != 2
                || !lines.getFirst().equals(what)
                || !lines.get(1).matches("\\d{1,18}")) {
            throw new RefusedException(
                    0,
                    "%s is of another import; remove it, or leave --resume out.".formatted(file),
                    List.of());
        }
        return Long.parseLong(lines.get(1));
    }

    /** Where nothing can be written beside the file, there is nothing to go on from later. */
    void reached(long rows) {
        try {
            Files.writeString(file, what + "\n" + rows + "\n");
        } catch (IOException _) {
            // the import itself is not in trouble
        }
    }

    void done() throws IOException {
        Files.deleteIfExists(file);
    }
}
