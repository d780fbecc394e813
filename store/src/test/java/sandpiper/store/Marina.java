package sandpiper.store;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;

/** The demo's definition files, as they stand in the repository. */
final class Marina {
    private static final Path PACKAGES = Path.of("../demo/packages");

    private Marina() {}

    static Map<String, String> files() {
        var files = new TreeMap<String, String>();
        try (var paths = Files.walk(PACKAGES)) {
            for (var path : paths.filter(Files::isRegularFile).toList()) {
                files.put(PACKAGES.relativize(path).toString(), Files.readString(path));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return files;
    }
}
