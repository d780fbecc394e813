package sandpiper.server.config;

import java.nio.file.Path;
import java.time.Clock;
import org.jspecify.annotations.Nullable;
import sandpiper.store.Restoration;

/** Backups that come in the place of data. */
public final class DataRestoration {
    private DataRestoration() {}

    /**
     * What came of a backup that was put back.
     *
     * @param release the newest in it; 0 before the first
     * @param bytes how large the data file is now
     * @param before what was there, or {@code null} when nothing was
     */
    public record Restored(int release, long bytes, @Nullable Path before) {}

    /**
     * Puts a backup in the place of the data of an instance that is stopped.
     *
     * @param data the data file; not a database, which has its own tools
     * @throws sandpiper.engine.port.StorageException when that cannot be, with why; then everything
     *     is as it was
     */
    public static Restored restore(Path backup, String data) {
        var done = Restoration.restore(backup, DataAddress.file(data), Clock.systemUTC());
        return new Restored(done.release(), done.bytes(), done.before());
    }
}
