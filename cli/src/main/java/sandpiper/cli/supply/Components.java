package sandpiper.cli.supply;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import sandpiper.client.ManageClient;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/** Reads bills of materials in the form of CycloneDX. */
public final class Components {
    /** Our own, which have the licence of the project. */
    private static final String OWN = "sandpiper";

    private Components() {}

    /**
     * All libraries that bills name, each once, by name.
     *
     * @throws IOException when a bill cannot be read
     */
    public static List<Component> of(List<Path> bills) throws IOException {
        var all = new ArrayList<Component>();
        for (var bill : bills) {
            for (var one : read(bill).path("components")) {
                if (!one.path("group").asString("").equals(OWN)) {
                    all.add(component(one));
                }
            }
        }
        return all.stream()
                .distinct()
                .sorted(
                        Comparator.comparing(Component::ecosystem)
                                .thenComparing(Component::name)
                                .thenComparing(Component::version))
                .toList();
    }

    private static JsonNode read(Path bill) throws IOException {
        try {
            return ManageClient.read(Files.readString(bill));
        } catch (JacksonException _) {
            throw new IOException("%s holds no JSON.".formatted(bill));
        }
    }

    private static Component component(JsonNode one) {
        boolean maven = one.path("purl").asString("").startsWith("pkg:maven/");
        var group = one.path("group").asString("");
        var name = one.path("name").asString("");
        return new Component(
                maven ? "Maven" : "npm",
                group.isEmpty() ? name : group + (maven ? ":" : "/") + name,
                one.path("version").asString(""),
                licences(one.path("licenses")));
    }

    private static List<String> licences(JsonNode licences) {
        var found = new ArrayList<String>();
        for (var one : licences) {
            if (one.has("expression")) {
                for (var alternative : one.path("expression").asString("").split(" OR ")) {
                    found.add(alternative.replaceAll("[()]", "").strip());
                }
                continue;
            }
            var licence = one.path("license");
            found.add(licence.path("id").asString(licence.path("name").asString("")));
        }
        return found;
    }
}
