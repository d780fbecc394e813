package sandpiper.cli.supply;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipFile;
import sandpiper.client.ManageClient;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/**
 * Reads advisories that the operator has: a JSON file with one of the OSV schema or a list of them,
 * a folder of such files, or a zip archive of them, as OSV databases are handed out.
 */
public final class Advisories {
    private static final String JSON = ".json";

    private Advisories() {}

    /**
     * Reads all there are at a place.
     *
     * @throws IOException when something there cannot be read, saying what
     */
    public static List<Advisory> at(Path place) throws IOException {
        var all = new ArrayList<Advisory>();
        if (Files.isDirectory(place)) {
            try (var files = Files.walk(place)) {
                for (var file :
                        files.filter(one -> one.toString().endsWith(JSON)).sorted().toList()) {
                    read(file.toString(), Files.readString(file), all);
                }
            }
        } else if (place.toString().endsWith(".zip")) {
            try (var archive = new ZipFile(place.toFile())) {
                for (var entry : archive.stream().toList()) {
                    if (entry.getName().endsWith(JSON)) {
                        try (var in = archive.getInputStream(entry)) {
                            var text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
                            read(entry.getName(), text, all);
                        }
                    }
                }
            }
        } else {
            read(place.toString(), Files.readString(place), all);
        }
        return all;
    }

    private static void read(String name, String text, List<Advisory> all) throws IOException {
        JsonNode json;
        try {
            json = ManageClient.read(text);
        } catch (JacksonException _) {
            throw new IOException("%s holds no JSON.".formatted(name));
        }
        var each = json.isArray() ? json : List.of(json);
        for (var one : each) {
            var advisory = Advisory.of(one);
            if (advisory.id().isEmpty()) {
                throw new IOException(
                        "%s is no advisory of the OSV schema: it has no id.".formatted(name));
            }
            all.add(advisory);
        }
    }
}
