package sandpiper.cli.common;

import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.EnumSet;
import java.util.Set;

/** Files with secrets: whose they are, and who else may read them. */
public final class FileOwner {
    private static final boolean POSIX =
            FileSystems.getDefault().supportedFileAttributeViews().contains("posix");
    private static final Set<PosixFilePermission> OTHERS =
            EnumSet.of(
                    PosixFilePermission.GROUP_READ,
                    PosixFilePermission.GROUP_WRITE,
                    PosixFilePermission.OTHERS_READ,
                    PosixFilePermission.OTHERS_WRITE);

    private FileOwner() {}

    /**
     * Whether a file is this user's and nobody else's. One that came with a folder from elsewhere
     * says where to send a password to.
     */
    public static boolean isOurs(Path file) {
        if (!POSIX) {
            return true;
        }
        try {
            var permissions = EnumSet.copyOf(Files.getPosixFilePermissions(file));
            permissions.retainAll(OTHERS);
            var home = Path.of(System.getProperty("user.home"));
            boolean ours = !Files.exists(home) || Files.getOwner(file).equals(Files.getOwner(home));
            if (!permissions.isEmpty() || !ours) {
                System.err.printf(
                        "%s is left aside: it must be yours and readable by you alone (chmod"
                                + " 600).%n",
                        file);
                return false;
            }
            return true;
        } catch (IOException _) {
            return false;
        }
    }

    /** Makes an empty file, or one that is there, readable by this user alone. */
    public static void keep(Path file) throws IOException {
        Files.deleteIfExists(file);
        Files.createFile(
                file,
                POSIX
                        ? new FileAttribute<?>[] {
                            PosixFilePermissions.asFileAttribute(
                                    PosixFilePermissions.fromString("rw-------"))
                        }
                        : new FileAttribute<?>[0]);
    }
}
