package sandpiper.model.check;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.Names;
import sandpiper.model.Place;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.definition.PackageSight;
import sandpiper.model.definition.PackageType;
import sandpiper.model.openapi.ApiDocument;
import sandpiper.model.openapi.ApiDocumentException;
import sandpiper.model.source.Source;
import sandpiper.model.type.ChoiceList;

/** Reads connections, each with the document that describes its service. */
final class ConnectionReader {
    private final Map<String, PackageType> packages;
    private final Map<String, ChoiceList> choices;
    private final Map<String, String> documents;
    private final Map<String, ConnectionType> connections = new LinkedHashMap<>();
    private final Set<String> used = new HashSet<>();

    /**
     * Begins with none.
     *
     * @param documents texts of documents by their paths
     */
    ConnectionReader(
            Map<String, PackageType> packages,
            Map<String, ChoiceList> choices,
            Map<String, String> documents) {
        this.packages = packages;
        this.choices = choices;
        this.documents = documents;
    }

    /** What was read, right or wrong, by name. */
    Map<String, ConnectionType> named() {
        return connections;
    }

    List<ConnectionType> connections() {
        return List.copyOf(connections.values());
    }

    /** Reads the file of a connection. */
    void read(Source source, String packageName) {
        var root = source.root();
        var name = Source.text(root, "connection").orElse("");
        var owner = packages.get(packageName);
        if (name.isEmpty() || owner == null) {
            return;
        }
        if (connections.containsKey(name)) {
            source.error(
                    DefinitionCode.DUPLICATE_NAME,
                    "There is a connection %s already.".formatted(Quoted.of(name)),
                    null,
                    "connection");
            return;
        }
        var contract = packageName + "/connections/" + Source.text(root, "contract").orElse("");
        var document = document(source, contract);
        var operations = new ConnectionOperations(source, owner, name, choices, document);
        connections.put(
                name,
                new ConnectionType(
                        name,
                        packageName,
                        Source.text(root, "label").orElseGet(() -> Names.label(name)),
                        Source.text(root, "describe").orElse(null),
                        Source.text(Source.mapping(root, "address"), "setting").orElse(name),
                        contract,
                        operations.lookups(),
                        operations.calls()));
    }

    /** Looks at documents that no connection names. */
    void checkDocuments(List<Diagnostic> diagnostics) {
        documents.keySet().stream()
                .filter(path -> !used.contains(path))
                .forEach(path ->
                        diagnostics.add(
                                Diagnostic.warning(
                                        path,
                                        Place.START,
                                        DefinitionCode.UNREAD_FILE,
                                        "No connection names this document as its contract.")));
    }

    /** Looks whether what a package says of exchange rates can be. */
    void checkRates(Source source, String packageName) {
        var written = Source.text(source.root(), "rates").orElse("");
        var parts = written.split("\\.", 2);
        if (parts.length < 2) {
            return;
        }
        var other =
                packages.values().stream()
                        .filter(one -> one.rates() != null && !one.name().equals(packageName))
                        .findFirst();
        var connection = connections.get(parts[0]);
        var call =
                connection == null
                        ? null
                        : connection.functions().stream()
                                .filter(one -> one.name().equals(parts[1]))
                                .findFirst()
                                .orElse(null);
        if (connection == null || call == null) {
            var all = new ArrayList<String>();
            connections
                    .values()
                    .forEach(one -> one.functions().forEach(each -> all.add(each.written())));
            source.error(
                    DefinitionCode.UNKNOWN_CONNECTION,
                    "There is no call %s.".formatted(Quoted.of(written)),
                    Nearest.to(written, all).orElse(null),
                    "rates");
        } else if (!PackageSight.reaches(packages, packageName, connection.packageName())) {
            source.error(
                    DefinitionCode.NOT_VISIBLE,
                    "%s is in the package %s, which %s does not depend on; add it to \"depends\"."
                            .formatted(connection.name(), connection.packageName(), packageName),
                    null,
                    "rates");
        } else if (!call.givesRates()) {
            source.error(
                    DefinitionCode.NOT_FOR_THIS_TYPE,
                    "%s cannot give exchange rates: such a call takes a text and a date, gives a"
                                    .formatted(written)
                            + " decimal, and is kept (keep: P365D), so that a day's rate stays"
                            + " what it was.",
                    null,
                    "rates");
        } else if (other.isPresent()) {
            source.error(
                    DefinitionCode.DUPLICATE_NAME,
                    "The package %s says already from where exchange rates come."
                            .formatted(other.get().name()),
                    null,
                    "rates");
        }
    }

    private @Nullable ApiDocument document(Source source, String path) {
        var text = documents.get(path);
        if (text == null) {
            if (Source.text(source.root(), "contract").isPresent()) {
                source.error(
                        DefinitionCode.BAD_CONTRACT,
                        "There is no file %s.".formatted(path),
                        Nearest.to(path, documents.keySet())
                                .map(near -> near.substring(near.lastIndexOf('/') + 1))
                                .orElse(null),
                        "contract");
            }
            return null;
        }
        used.add(path);
        try {
            return ApiDocument.read(text);
        } catch (ApiDocumentException e) {
            source.diagnostics()
                    .add(
                            Diagnostic.error(
                                    path,
                                    Place.START,
                                    DefinitionCode.BAD_CONTRACT,
                                    String.valueOf(e.getMessage()),
                                    null));
            return null;
        }
    }
}
