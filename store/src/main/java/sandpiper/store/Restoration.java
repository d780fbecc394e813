package sandpiper.store;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.StorageException;
import sandpiper.store.schema.SystemTables;
import sandpiper.store.sqlite.FileHold;
import sandpiper.store.sqlite.FileModes;
import sandpiper.store.sqlite.SqliteDatabase;

/**
 * Puts a backup in the place of the data of a service that is stopped. It is looked through first,
 * what was there is kept beside it, and at no moment is there no data file, or half of one.
 */
public final class Restoration {
    private static final DateTimeFormatter STAMP =
            DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss'Z'").withZone(ZoneOffset.UTC);

    private Restoration() {}

    /**
     * What was done.
     *
     * @param release the newest in the backup; 0 before the first
     * @param bytes how large the data file is now
     * @param before what was there, or {@code null} when nothing was
     */
    public record Restored(int release, long bytes, @Nullable Path before) {}

    /**
     * Puts a backup in the place of data, or where none was.
     *
     * @param backup what a backup wrote
     * @param data the file a service is started on, which need not be there
     * @throws StorageException when the backup is none or is damaged, or a service has the data
     *     open; then everything is as it was
     */
    public static Restored restore(Path backup, Path data, Clock clock) {
        var folder = Objects.requireNonNull(data.toAbsolutePath().getParent());
        var copy = folder.resolve(data.getFileName() + ".restoring");
        try {
            if (!Files.isRegularFile(backup)) {
                throw refused("There is no file %s.".formatted(backup));
            }
            if (Files.exists(data) && Files.isSameFile(backup, data)) {
                throw refused("%s is the data file itself; name the backup.".formatted(backup));
            }
            var log = Path.of(backup + "-wal");
            if (Files.exists(log) && Files.size(log) > 0) {
                throw refused(
                        "%s has a log beside it (%s): it is a data file that was in use, not a backup. Start a service on it and make one with \"sandpiper backup\"."
                                .formatted(backup, log.getFileName()));
            }
            FileModes.makeFolder(folder);
            remove(copy);
            FileModes.make(copy);
            Files.copy(backup, copy, StandardCopyOption.REPLACE_EXISTING);
            FileModes.restrict(copy);
            force(copy);
            int release = SqliteDatabase.look(copy, backup, SystemTables.newest());
            var before = Files.exists(data) ? replace(data, copy, clock) : null;
            if (before == null) {
                Files.move(copy, data, StandardCopyOption.ATOMIC_MOVE);
            }
            return new Restored(release, Files.size(data), before);
        } catch (IOException e) {
            throw new StorageException(
                    "%s could not be put in the place of %s: %s"
                            .formatted(backup, data, e.getMessage()),
                    e);
        } finally {
            remove(copy);
        }
    }

    private static StorageException refused(String words) {
        return new StorageException(words, new IllegalStateException(words));
    }

    private static Path replace(Path data, Path copy, Clock clock) throws IOException {
        try (var _ = FileHold.take(data)) {
            // What stands in the log belongs to the old file and must not come to the new one.
            SqliteDatabase.settle(data);
            var before =
                    data.resolveSibling(
                            "%s.before-%s"
                                    .formatted(data.getFileName(), STAMP.format(clock.instant())));
            for (var log : new String[] {"-wal", "-shm"}) {
                var there = Path.of(data + log);
                if (Files.exists(there)) {
                    Files.move(there, Path.of(before + log));
                }
            }
            Files.createLink(before, data);
            Files.move(
                    copy,
                    data,
                    StandardCopyOption.ATOMIC_MOVE,
                    StandardCopyOption.REPLACE_EXISTING);
            return before;
        }
    }

    private static void force(Path file) throws IOException {
        try (var channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
            channel.force(true);
        }
    }

    private static void remove(Path copy) {
        for (var end : new String[] {"", "-wal", "-shm"}) {
            try {
                Files.deleteIfExists(Path.of(copy + end));
            } catch (IOException _) {
                // It is only in the way of the next one, which takes it away.
            }
        }
    }
}
