package sandpiper.store.schema;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import java.util.regex.Pattern;
import sandpiper.engine.port.StorageException;
import sandpiper.store.sql.Dialect;
import sandpiper.store.sql.SqlSession;

/**
 * The service's own tables. Each {@code format-NN.sql} in the folder of an engine brings its tables
 * from one format to the next; it is never changed once it was delivered. What has one number on
 * both engines has the same in it.
 */
public final class SystemTables {
    private static final int NEWEST = 17;
    private static final Pattern BETWEEN_STATEMENTS = Pattern.compile(";\\s*(?:\n\n|$)");

    private SystemTables() {}

    /** The format this version of the service writes. */
    public static int newest() {
        return NEWEST;
    }

    /** The format the tables have; 0 when there are none. */
    public static int format(SqlSession session) {
        return (int) session.number(session.dialect().schema().format());
    }

    /** Brings the tables up to this version of the service. */
    public static void prepare(SqlSession session) {
        prepare(session, newest());
    }

    /** Brings the tables up to a format. */
    static void prepare(SqlSession session, int format) {
        var schema = session.dialect().schema();
        int there = format(session);
        if (there > NEWEST) {
            throw new StorageException(
                    "The data was written by a newer version of the service (format %d, this one knows %d)."
                            .formatted(there, NEWEST),
                    new IllegalStateException());
        }
        if (there == format) {
            return;
        }
        for (int i = Math.max(there + 1, schema.firstFormat()); i <= format; i++) {
            statements(schema, i).forEach(session::runOnce);
        }
        session.runOnce(schema.formatted(format));
    }

    /** What leads to a format from the one before. */
    private static List<String> statements(Dialect.Schema schema, int format) {
        var file = "%s/format-%02d.sql".formatted(schema.folder(), format);
        try (var in = Objects.requireNonNull(SystemTables.class.getResourceAsStream(file), file)) {
            var text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            return List.of(BETWEEN_STATEMENTS.split(text));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
