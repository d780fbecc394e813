package sandpiper.model.brought;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.Place;
import sandpiper.model.definition.Brought;
import sandpiper.model.definition.DeliveredRole;
import sandpiper.model.definition.DeliveredView;
import sandpiper.model.definition.SeedFile;
import sandpiper.model.release.Release;
import sandpiper.model.release.ServiceType;
import sandpiper.model.source.Source;

/** Reads roles, views and records that come with packages; what they name must be there. */
public final class BroughtReader {
    private final Release release;
    private final List<ServiceType> services;
    private final List<Diagnostic> diagnostics;
    private final Map<String, DeliveredRole> roles = new LinkedHashMap<>();
    private final List<DeliveredView> views = new ArrayList<>();
    private final Map<String, SeedFile> seeds = new LinkedHashMap<>();

    /**
     * Begins with none.
     *
     * @param release the objects of all packages, compiled
     * @param services those of all packages
     * @param diagnostics takes what is wrong
     */
    public BroughtReader(
            Release release, List<ServiceType> services, List<Diagnostic> diagnostics) {
        this.release = release;
        this.services = services;
        this.diagnostics = diagnostics;
    }

    /** Whether a path is that of a file with records. */
    public static boolean isSeed(String path) {
        return SeedReader.isSeed(path);
    }

    /** Reads the file of a role. */
    public void role(Source source, String packageName) {
        var name = Source.text(source.root(), "role").orElse("");
        if (name.isEmpty()) {
            return;
        }
        var role = new RoleReader(source, packageName, release, services).read(name);
        if (roles.putIfAbsent(name, role) != null) {
            source.error(
                    DefinitionCode.DUPLICATE_NAME,
                    "There is a role %s already.".formatted(Quoted.of(name)),
                    null,
                    "role");
        }
    }

    /** Reads the file of a view. */
    public void view(Source source, String packageName) {
        var name = Source.text(source.root(), "view").orElse("");
        if (name.isEmpty()) {
            return;
        }
        new ViewReader(source, packageName, release)
                .read(name)
                .ifPresent(view -> {
                    boolean taken =
                            views.stream()
                                    .anyMatch(other ->
                                            other.object().equals(view.object())
                                                    && other.name().equals(name));
                    if (taken) {
                        source.error(
                                DefinitionCode.DUPLICATE_NAME,
                                "There is a view %s of %s already."
                                        .formatted(Quoted.of(name), view.object()),
                                null,
                                "view");
                    } else {
                        views.add(view);
                    }
                });
    }

    /** Reads a file with records. */
    public void seed(String path, String text, String packageName) {
        new SeedReader(path, text, packageName, release, diagnostics)
                .read()
                .ifPresent(seed -> {
                    var other = seeds.putIfAbsent(seed.object(), seed);
                    if (other != null) {
                        diagnostics.add(
                                Diagnostic.error(
                                        path,
                                        Place.START,
                                        DefinitionCode.DUPLICATE_NAME,
                                        "Records of %s come with %s already."
                                                .formatted(seed.object(), other.path()),
                                        null));
                    }
                });
    }

    /** What was read. */
    public Brought all() {
        return new Brought(List.copyOf(roles.values()), views, List.copyOf(seeds.values()));
    }
}
