package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** What the signs in the house point to is there, and a name means one thing. */
class SignpostsTest {
    private static final Path HOUSE = Path.of("..");

    private static final List<String> MODULES =
            List.of("logic", "model", "engine", "store", "server", "client", "demo", "cli");

    private static final Pattern LINK =
            Pattern.compile("\\{@link(?:plain)?\\s+(?:\\*\\s+)?(sandpiper[\\w.]+)");

    /** A type in backticks: two capitals at least, so that words of other worlds are left out. */
    private static final Pattern TYPE = Pattern.compile("`([A-Z][a-z]+[A-Z]\\w*)`");

    /** Names in documents that are types of tests. */
    private static final Set<String> OTHERS = Set.of("ArchitectureTest", "ArchitecturePictureTest");

    /** Where each simple name is, as fully qualified names. */
    private static final Map<String, List<String>> TYPES = new HashMap<>();

    @BeforeAll
    static void find() throws IOException {
        for (var module : MODULES) {
            var root = HOUSE.resolve(module).resolve("src/main/java");
            for (var file : sources(root)) {
                var name = root.relativize(file).toString().replace('/', '.');
                var type = name.substring(0, name.length() - ".java".length());
                var simple = type.substring(type.lastIndexOf('.') + 1);
                if (!simple.equals("package-info")) {
                    TYPES.computeIfAbsent(simple, _ -> new ArrayList<>()).add(type);
                }
            }
        }
        assertThat(TYPES).hasSizeGreaterThan(500);
    }

    private static List<Path> sources(Path root) throws IOException {
        try (Stream<Path> files = Files.walk(root)) {
            return files.filter(file -> file.toString().endsWith(".java")).toList();
        }
    }

    @Test
    void everySignOfARoomPointsToATypeThatIsThere() throws IOException {
        var known = TYPES.values().stream().flatMap(List::stream).toList();
        var lost = new ArrayList<String>();
        for (var module : MODULES) {
            for (var file : sources(HOUSE.resolve(module).resolve("src/main/java"))) {
                if (file.endsWith("package-info.java")) {
                    var links = LINK.matcher(Files.readString(file));
                    while (links.find()) {
                        if (!known.contains(links.group(1))) {
                            lost.add(file + ": " + links.group(1));
                        }
                    }
                }
            }
        }
        assertThat(lost).isEmpty();
    }

    @Test
    void everyTypeThatDocumentsForContributorsNameIsThere() throws IOException {
        var lost = new ArrayList<String>();
        for (var document : List.of("CONTRIBUTING.md", "docs/architecture.md")) {
            var names = TYPE.matcher(Files.readString(HOUSE.resolve(document)));
            while (names.find()) {
                if (!TYPES.containsKey(names.group(1)) && !OTHERS.contains(names.group(1))) {
                    lost.add(document + ": " + names.group(1));
                }
            }
        }
        assertThat(lost).isEmpty();
    }

    @Test
    void everyServiceThatIsLookedUpByNameIsThere() throws IOException {
        var known = TYPES.values().stream().flatMap(List::stream).toList();
        var named = new ArrayList<String>();
        for (var module : MODULES) {
            var folder = HOUSE.resolve(module).resolve("src/main/resources/META-INF/services");
            if (Files.isDirectory(folder)) {
                try (var files = Files.list(folder)) {
                    for (var file : files.toList()) {
                        named.add(file.getFileName().toString());
                        named.addAll(Files.readAllLines(file));
                    }
                }
            }
        }
        assertThat(named).isNotEmpty();
        assertThat(known).containsAll(named);
    }

    @Test
    void noTwoTypesHaveOneName() {
        assertThat(TYPES.values().stream().filter(types -> types.size() > 1)).isEmpty();
    }
}
