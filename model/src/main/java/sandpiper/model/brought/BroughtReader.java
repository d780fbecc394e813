package sandpiper.model.brought;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.Place;
import sandpiper.model.definition.DeliveredRole;
import sandpiper.model.definition.SeedFile;
import sandpiper.model.release.Release;
import sandpiper.model.release.ServiceType;
import sandpiper.model.source.Source;

/** Reads roles and records that come with packages; what they name must be there. */
public final class BroughtReader {
    private final Release release;
    private final List<ServiceType> services;
    private final List<Diagnostic> diagnostics;
    private final Map<String, DeliveredRole> roles = new LinkedHashMap<>();
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

    /** The roles that were read. */
    public List<DeliveredRole> roles() {
        return List.copyOf(roles.values());
    }

    /** The records that were read, of each object at most once. */
    public List<SeedFile> seeds() {
        return List.copyOf(seeds.values());
    }
}
