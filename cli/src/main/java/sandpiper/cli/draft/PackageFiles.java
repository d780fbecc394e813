package sandpiper.cli.draft;

import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import sandpiper.client.RefusedException;

/** Definition files on disk: one package's folder, or a folder of packages. */
public final class PackageFiles {
    private PackageFiles() {}

    /** Texts by path, each path beginning with its package's folder. */
    public static Map<String, String> read(Path folder) {
        if (!Files.isDirectory(folder)) {
            throw new RefusedException(0, "%s is not a folder.".formatted(folder), List.of());
        }
        var real = folder.toAbsolutePath().normalize();
        boolean onePackage = Files.exists(real.resolve("package.yaml"));
        var root = onePackage ? real.resolveSibling("").normalize() : real;
        var files = new TreeMap<String, String>();
        try (var paths = Files.walk(real)) {
            for (var path : paths.filter(PackageFiles::isDefinition).toList()) {
                files.put(root.relativize(path).toString().replace('\\', '/'), text(path));
            }
        } catch (IOException e) {
            throw new RefusedException(
                    0, "%s cannot be read: %s.".formatted(folder, e.getMessage()), List.of());
        }
        if (files.isEmpty()) {
            throw new RefusedException(
                    0,
                    "%s holds no package: no package.yaml was found in it.".formatted(folder),
                    List.of());
        }
        return files;
    }

    private static boolean isDefinition(Path path) {
        var name = path.getFileName().toString();
        var folder = path.getParent();
        boolean isContract =
                name.matches(".+\\.openapi\\.json")
                        && folder != null
                        && folder.endsWith("connections");
        boolean isSeed = name.endsWith(".csv") && folder != null && folder.endsWith("data");
        return Files.isRegularFile(path)
                && !name.startsWith(".")
                && (name.endsWith(".yaml") || isSeed || isContract);
    }

    private static String text(Path path) throws IOException {
        try {
            return Files.readString(path);
        } catch (CharacterCodingException e) {
            throw new RefusedException(
                    0, "%s is not text in UTF-8; save it as such.".formatted(path), List.of());
        }
    }
}
