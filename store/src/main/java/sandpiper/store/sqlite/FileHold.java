package sandpiper.store.sqlite;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.StorageException;

/**
 * Holds a data file for this process: two on one file would each go by a release of its own. The
 * locks are the system's and end with the process, however it ends. One stands beside the file that
 * links lead to, one under the file's own number, which every name of it has in common.
 */
public final class FileHold implements AutoCloseable {
    private static final int LONGEST_NOTE = 200;

    private final List<FileChannel> locks;

    private FileHold(List<FileChannel> locks) {
        this.locks = locks;
    }

    /**
     * Takes a file, which must be there.
     *
     * @throws StorageException when another process has it; says which
     */
    public static FileHold take(Path file) {
        var locks = new ArrayList<FileChannel>();
        try {
            var real = file.toRealPath();
            locks.add(lock(real.resolveSibling(real.getFileName() + ".lock"), file));
            var number = number(real);
            if (number != null) {
                lockNumber(number, file, locks);
            }
            return new FileHold(locks);
        } catch (IOException e) {
            close(locks);
            throw new StorageException("The data file %s cannot be locked.".formatted(file), e);
        } catch (StorageException e) {
            close(locks);
            throw e;
        }
    }

    private static void lockNumber(String number, Path file, List<FileChannel> locks)
            throws IOException {
        var place =
                Path.of(System.getProperty("java.io.tmpdir"))
                        .resolve("sandpiper-" + number + ".lock");
        try {
            locks.add(lock(place, file));
        } catch (AccessDeniedException _) {
            // Somebody else's, of a file that had this number before: it says nothing of this one.
        }
    }

    /** The device and number of a file, or {@code null} where files have none. */
    static @Nullable String number(Path file) throws IOException {
        return file.getFileSystem().supportedFileAttributeViews().contains("unix")
                ? "%s-%s"
                        .formatted(
                                Files.getAttribute(file, "unix:dev"),
                                Files.getAttribute(file, "unix:ino"))
                : null;
    }

    private static FileChannel lock(Path place, Path file) throws IOException {
        var channel =
                FileChannel.open(
                        place,
                        StandardOpenOption.CREATE,
                        StandardOpenOption.READ,
                        StandardOpenOption.WRITE);
        boolean taken = false;
        try {
            taken = channel.tryLock() != null;
        } catch (OverlappingFileLockException _) {
            // This process has it, which is as good as another.
        }
        if (!taken) {
            var holder = note(channel);
            channel.close();
            throw new StorageException(
                    "The data file %s is in use by another service%s. Stop that one first."
                            .formatted(file, holder),
                    new IllegalStateException("locked"));
        }
        FileModes.restrict(place);
        channel.truncate(0);
        channel.write(
                ByteBuffer.wrap(
                        " (process %d, since %s)"
                                .formatted(
                                        ProcessHandle.current().pid(),
                                        Instant.now().truncatedTo(ChronoUnit.SECONDS))
                                .getBytes(StandardCharsets.UTF_8)));
        return channel;
    }

    private static String note(FileChannel channel) throws IOException {
        var bytes = ByteBuffer.allocate(LONGEST_NOTE);
        channel.read(bytes, 0);
        return new String(bytes.array(), 0, bytes.position(), StandardCharsets.UTF_8);
    }

    @Override
    public void close() {
        close(locks);
    }

    private static void close(List<FileChannel> locks) {
        for (var lock : locks) {
            try {
                lock.close();
            } catch (IOException _) {
                // it ends with the process
            }
        }
    }
}
