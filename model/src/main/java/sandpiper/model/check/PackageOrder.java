package sandpiper.model.check;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.definition.PackageType;
import sandpiper.model.source.Source;

/** Puts packages in an order in which each comes after those it depends on. */
final class PackageOrder {
    private final Map<String, PackageType> packages;
    private final Map<String, Source> sources;
    private final Set<String> done = new LinkedHashSet<>();

    private PackageOrder(Map<String, PackageType> packages, Map<String, Source> sources) {
        this.packages = packages;
        this.sources = sources;
    }

    /**
     * The names in order; a package that is missing or part of a cycle is reported and the rest
     * still put in order.
     */
    static List<String> of(Map<String, PackageType> packages, Map<String, Source> sources) {
        var order = new PackageOrder(packages, sources);
        packages.keySet().forEach(name -> order.visit(name, List.of()));
        return List.copyOf(order.done);
    }

    private void visit(String name, List<String> trail) {
        if (done.contains(name)) {
            return;
        }
        var further = new ArrayList<>(trail);
        further.add(name);
        var definition = packages.get(name);
        for (var needed : definition == null ? List.<String>of() : definition.depends()) {
            var source = sources.get(name);
            if (source == null) {
                continue;
            }
            if (!packages.containsKey(needed)) {
                source.error(
                        DefinitionCode.UNKNOWN_PACKAGE,
                        "There is no package %s.".formatted(Quoted.of(needed)),
                        Nearest.to(needed, packages.keySet()).orElse(null),
                        "depends");
            } else if (further.contains(needed)) {
                source.error(
                        DefinitionCode.PACKAGE_CYCLE,
                        "Packages depend on each other in a circle: %s → %s."
                                .formatted(
                                        String.join(
                                                " → ",
                                                further.subList(
                                                        further.indexOf(needed), further.size())),
                                        needed),
                        null,
                        "depends");
            } else {
                visit(needed, further);
            }
        }
        done.add(name);
    }
}
