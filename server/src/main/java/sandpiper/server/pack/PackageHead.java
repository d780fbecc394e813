package sandpiper.server.pack;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sandpiper.model.Diagnostic;
import sandpiper.model.yaml.YamlFile;
import sandpiper.model.yaml.YamlNode;

/** What {@code package.yaml} says of a package, as far as packing needs it. */
record PackageHead(String name, String version, List<String> depends) {
    /**
     * @throws BadArchiveException when it is not there or does not say so
     */
    static PackageHead of(String name, Map<String, String> files) {
        var path = name + "/package.yaml";
        var text = files.get(path);
        if (text == null) {
            throw new BadArchiveException("There is no %s.".formatted(path));
        }
        var diagnostics = new ArrayList<Diagnostic>();
        if (!(YamlFile.read(path, text, diagnostics).orElse(null)
                instanceof YamlNode.Mapping root)) {
            throw new BadArchiveException(
                    "%s cannot be read%s"
                            .formatted(
                                    path,
                                    diagnostics.isEmpty()
                                            ? "."
                                            : ": " + diagnostics.getFirst().message()));
        }
        return new PackageHead(
                scalar(root, "package").orElse(""),
                // As definitions are read.
                scalar(root, "version").orElse("1"),
                list(root, "depends"));
    }

    private static Optional<String> scalar(YamlNode.Mapping root, String key) {
        return root.get(key)
                .filter(YamlNode.Scalar.class::isInstance)
                .map(node -> ((YamlNode.Scalar) node).text());
    }

    private static List<String> list(YamlNode.Mapping root, String key) {
        return root.get(key)
                .filter(YamlNode.Sequence.class::isInstance)
                .map(node ->
                        ((YamlNode.Sequence) node)
                                .items().stream()
                                        .filter(YamlNode.Scalar.class::isInstance)
                                        .map(item -> ((YamlNode.Scalar) item).text())
                                        .toList())
                .orElse(List.of());
    }
}
