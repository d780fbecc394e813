package sandpiper.model.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.Place;
import sandpiper.model.brought.BroughtReader;
import sandpiper.model.openapi.ApiDocument;
import sandpiper.model.shape.FileKind;
import sandpiper.model.shape.ShapeChecker;
import sandpiper.model.source.Source;
import sandpiper.model.yaml.YamlFile;
import sandpiper.model.yaml.YamlNode;

/** The definition files of all packages that can be read, by what they define. */
final class DefinitionFiles {
    private final List<Diagnostic> diagnostics;
    private final Map<FileKind, List<Source>> sources = new HashMap<>();
    private final Map<String, String> documents = new HashMap<>();

    /** Reads files by their paths; takes what is wrong with them, and later with what they say. */
    DefinitionFiles(Map<String, String> files, List<Diagnostic> diagnostics) {
        this.diagnostics = diagnostics;
        files.forEach(this::read);
    }

    /** The folder of a path, which is the package. */
    static String folder(String path) {
        return path.substring(0, Math.max(0, path.indexOf('/')));
    }

    /** The texts of documents that describe outside services, by path. */
    Map<String, String> documents() {
        return documents;
    }

    /** Those of a kind. */
    List<Source> of(FileKind kind) {
        return sources.getOrDefault(kind, List.of());
    }

    /** Those of a kind in a package. */
    List<Source> of(FileKind kind, String packageName) {
        return of(kind).stream()
                .filter(source -> folder(source.file()).equals(packageName))
                .toList();
    }

    private void read(String path, String text) {
        var slash = path.indexOf('/');
        if (path.contains("..") || path.contains("\\") || path.startsWith("/") || slash < 1) {
            diagnostics.add(
                    Diagnostic.error(
                            path,
                            Place.START,
                            DefinitionCode.BAD_PATH,
                            "A file needs a path such as harbour/objects/owner.yaml.",
                            null));
            return;
        }
        if (BroughtReader.isSeed(path) || path.endsWith(".md")) {
            return;
        }
        if (ApiDocument.isDocument(path)) {
            documents.put(path, text);
            return;
        }
        var kind = FileKind.of(path.substring(slash + 1));
        if (kind.isEmpty()) {
            diagnostics.add(
                    Diagnostic.warning(
                            path,
                            Place.START,
                            DefinitionCode.UNREAD_FILE,
                            "This file is not read: records are in data/*.csv, definitions in"
                                    + " package.yaml and in *.yaml in objects, extensions, choices,"
                                    + " services, service-extensions, events, routes, connections,"
                                    + " roles, views and"
                                    + " requirements."));
            return;
        }
        var tree = YamlFile.read(path, text, diagnostics);
        if (tree.isPresent()
                && ShapeChecker.check(path, tree.get(), kind.get().shape(), diagnostics)
                        instanceof YamlNode.Mapping root) {
            sources.computeIfAbsent(kind.get(), _ -> new ArrayList<>())
                    .add(new Source(path, text, root, diagnostics));
        }
    }
}
