package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

/**
 * The picture in {@code docs/architecture.md} shows the house as it is: it is drawn from the
 * classes. {@code -Dgolden.write=true} draws it anew.
 */
class ArchitecturePictureTest {
    private static final Path DOCUMENT = Path.of("../docs/architecture.md");
    private static final String BEGIN = "```mermaid\n";
    private static final String END = "```\n";
    private static final String HOUSE = "sandpiper.";

    private static final List<String> FLOORS =
            List.of("logic", "model", "engine", "store", "server", "client", "demo", "cli");

    @Test
    void showsTheHouseAsItIs() throws IOException {
        var classes =
                new ClassFileImporter()
                        .withImportOption(new ImportOption.DoNotIncludeTests())
                        .importPackages("sandpiper");
        var picture =
                "graph TD\n"
                        + drawn(edges(classes, false))
                        + "  subgraph rooms [Rooms of the engine]\n"
                        + drawn(edges(classes, true))
                        + "  end\n";
        var text = Files.readString(DOCUMENT);
        int begin = text.indexOf(BEGIN) + BEGIN.length();
        int end = text.indexOf(END, begin);
        if (Boolean.getBoolean("golden.write")) {
            Files.writeString(DOCUMENT, text.substring(0, begin) + picture + text.substring(end));
            return;
        }
        assertThat(text.substring(begin, end)).isEqualTo(picture);
    }

    /** Who knows whom: floors, or rooms of the engine. */
    private static TreeMap<String, Set<String>> edges(JavaClasses classes, boolean ofEngine) {
        var edges = new TreeMap<String, Set<String>>();
        for (var type : classes) {
            var from = place(type.getPackageName(), ofEngine);
            for (var dependency : type.getDirectDependenciesFromSelf()) {
                var to = place(dependency.getTargetClass().getPackageName(), ofEngine);
                if (!from.isEmpty() && !to.isEmpty() && !from.equals(to)) {
                    edges.computeIfAbsent(from, _ -> new TreeSet<>()).add(to);
                }
            }
        }
        return edges;
    }

    private static String place(String packageName, boolean ofEngine) {
        if (!packageName.startsWith(HOUSE)) {
            return "";
        }
        var names = packageName.substring(HOUSE.length()).split("\\.");
        if (ofEngine) {
            return names[0].equals("engine") && names.length > 1 ? "engine." + names[1] : "";
        }
        return FLOORS.contains(names[0]) ? names[0] : "";
    }

    /** Only the shortest ways: what is known by way of another is left out. */
    private static String drawn(TreeMap<String, Set<String>> edges) {
        var text = new StringBuilder();
        edges.forEach((from, targets) ->
                targets.stream()
                        .filter(to ->
                                targets.stream()
                                        .noneMatch(other ->
                                                !other.equals(to)
                                                        && reaches(
                                                                edges, other, to, new TreeSet<>())))
                        .forEach(to -> text.append("  %s --> %s\n".formatted(from, to))));
        return text.toString();
    }

    private static boolean reaches(
            TreeMap<String, Set<String>> edges, String from, String to, Set<String> seen) {
        return seen.add(from)
                && edges.getOrDefault(from, Set.of()).stream()
                        .anyMatch(next -> next.equals(to) || reaches(edges, next, to, seen));
    }
}
