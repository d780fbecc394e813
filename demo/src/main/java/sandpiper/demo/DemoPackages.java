package sandpiper.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;

/** The definition files of the demo, which travel in its jar. */
public final class DemoPackages {
    private static final String PLACE = "/sandpiper/demo/packages";

    private DemoPackages() {}

    /** Texts by path. */
    public static Map<String, String> files() {
        try {
            var place = Objects.requireNonNull(DemoPackages.class.getResource(PLACE)).toURI();
            return place.getScheme().equals("jar") ? filesInJar(place) : filesBelow(Path.of(place));
        } catch (URISyntaxException e) {
            throw new IllegalStateException(e);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Map<String, String> filesInJar(URI place) throws IOException {
        try (var jar = FileSystems.newFileSystem(place, Map.of())) {
            return filesBelow(jar.getPath(PLACE));
        }
    }

    private static Map<String, String> filesBelow(Path root) throws IOException {
        var files = new TreeMap<String, String>();
        try (var paths = Files.walk(root)) {
            for (var path : paths.filter(Files::isRegularFile).toList()) {
                files.put(
                        root.relativize(path).toString().replace('\\', '/'),
                        Files.readString(path));
            }
        }
        return files;
    }
}
