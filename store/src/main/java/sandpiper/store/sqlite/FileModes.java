package sandpiper.store.sqlite;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Set;

/** Files that hold everything are their owner's alone, whatever the umask says. */
public final class FileModes {
    private static final Set<PosixFilePermission> OWNERS =
            PosixFilePermissions.fromString("rw-------");
    private static final boolean POSIX =
            FileSystems.getDefault().supportedFileAttributeViews().contains("posix");

    private FileModes() {}

    /**
     * Makes an empty file that only its owner reads; leaves one that is there, but restricts it.
     */
    public static void make(Path file) {
        try {
            Files.createFile(file, attributes("rw-------"));
        } catch (FileAlreadyExistsException _) {
            restrict(file);
        } catch (IOException e) {
            throw new UncheckedIOException("The file %s cannot be made.".formatted(file), e);
        }
    }

    /** Makes a folder, and those above it, that only its owner enters; leaves one that is there. */
    public static void makeFolder(Path folder) {
        try {
            Files.createDirectories(folder, attributes("rwx------"));
        } catch (IOException e) {
            throw new UncheckedIOException(
                    "The folder of the data cannot be made: %s.".formatted(folder), e);
        }
    }

    /** Takes from others what they may do with a file; a file of somebody else stays as it is. */
    public static void restrict(Path file) {
        if (POSIX && Files.exists(file)) {
            try {
                Files.setPosixFilePermissions(file, OWNERS);
            } catch (IOException _) {
                // not ours to change
            }
        }
    }

    private static FileAttribute<?>[] attributes(String permissions) {
        return POSIX
                ? new FileAttribute<?>[] {
                    PosixFilePermissions.asFileAttribute(
                            PosixFilePermissions.fromString(permissions))
                }
                : new FileAttribute<?>[0];
    }
}
