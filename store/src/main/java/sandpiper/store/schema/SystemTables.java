package sandpiper.store.schema;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import java.util.regex.Pattern;
import sandpiper.engine.port.StorageException;
import sandpiper.store.sql.SqlSession;

/**
 * The service's own tables. Each {@code format-NN.sql} beside this class brings a data file from
 * one format to the next; it is never changed once it was delivered.
 */
public final class SystemTables {
    private static final int NEWEST = 15;
    private static final Pattern BETWEEN_STATEMENTS = Pattern.compile(";\\s*(?:\n\n|$)");

    private SystemTables() {}

    /** The format this version of the service writes. */
    public static int newest() {
        return NEWEST;
    }

    /** Brings the file up to this version of the service. */
    public static void prepare(SqlSession session) {
        prepare(session, newest());
    }

    /** Brings the file up to a format. */
    static void prepare(SqlSession session, int format) {
        long version = session.number("pragma user_version");
        if (version > NEWEST) {
            throw new StorageException(
                    "The data file was written by a newer version of the service (format %d, this one knows %d)."
                            .formatted(version, NEWEST),
                    new IllegalStateException());
        }
        for (int i = (int) version + 1; i <= format; i++) {
            statements(i).forEach(session::runOnce);
        }
        session.runOnce("pragma user_version = " + format);
    }

    /** What leads to a format from the one before. */
    private static List<String> statements(int format) {
        var file = "format-%02d.sql".formatted(format);
        try (var in = Objects.requireNonNull(SystemTables.class.getResourceAsStream(file), file)) {
            var text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            return List.of(BETWEEN_STATEMENTS.split(text));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
