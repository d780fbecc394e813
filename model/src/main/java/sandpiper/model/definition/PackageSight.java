package sandpiper.model.definition;

import java.util.ArrayDeque;
import java.util.HashSet;
import java.util.List;
import java.util.Map;

/** Which packages a package may name things of: its own, and those it depends on. */
public final class PackageSight {
    private PackageSight() {}

    /**
     * Whether one package may name what is in another.
     *
     * @param packages all there are, by name
     */
    public static boolean reaches(Map<String, PackageType> packages, String from, String to) {
        var reached = new HashSet<String>();
        var waiting = new ArrayDeque<>(List.of(from));
        while (!waiting.isEmpty()) {
            var name = waiting.poll();
            if (name.equals(to)) {
                return true;
            }
            var definition = packages.get(name);
            if (reached.add(name) && definition != null) {
                waiting.addAll(definition.depends());
            }
        }
        return false;
    }
}
