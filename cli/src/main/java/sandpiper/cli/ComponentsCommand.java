package sandpiper.cli;

import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Table;
import sandpiper.cli.supply.Advisories;
import sandpiper.cli.supply.Component;
import sandpiper.cli.supply.Components;
import sandpiper.client.RefusedException;

@Command(
        name = "components",
        mixinStandardHelpOptions = true,
        description = {
            "List the libraries this distribution is made of, with versions and licences, out of"
                    + " its bills of materials (CycloneDX).",
            "With advisories or licences it looks for what is against them and ends with 1 when it"
                    + " finds something. Nothing is asked of the network."
        },
        footer = {
            "",
            "Examples:",
            "  sandpiper components --advisories osv-maven.zip --advisories osv-npm.zip",
            "  sandpiper components --licences MIT,Apache-2.0"
        })
final class ComponentsCommand extends AnsweringCommand implements Callable<Integer> {
    @Option(
            names = "--advisories",
            paramLabel = "FILE",
            description =
                    "Advisories in the OSV schema: a JSON file, a folder or a zip archive of them."
                            + " May be repeated.")
    @Nullable List<Path> advisories;

    @Option(
            names = "--licences",
            paramLabel = "ID",
            arity = "1..*",
            split = ",",
            description = "Licences that may be used, by SPDX id; @FILE reads them from a file.")
    @Nullable List<String> licences;

    @Option(
            names = "--except",
            paramLabel = "ID",
            split = ",",
            description = "Advisories that were looked at and do not matter here.")
    List<String> except = List.of();

    @Option(names = "--bill", paramLabel = "FILE", description = "Read these bills instead.")
    @Nullable List<Path> bills;

    @Override
    public Integer call() throws IOException, URISyntaxException {
        var components = Components.of(bills == null ? own() : bills);
        if (advisories == null && licences == null) {
            var table = new Table(List.of("Library", "Version", "Licence"));
            components.forEach(one ->
                    table.add(
                            List.of(
                                    one.name(),
                                    one.version(),
                                    String.join(" or ", one.licences()))));
            return say(table);
        }
        boolean bad = licences != null && tellLicences(components, licences);
        if (advisories != null) {
            bad |= tellAdvisories(components, advisories);
        }
        if (!bad) {
            say("%,d libraries, nothing found.".formatted(components.size()));
        }
        return bad ? 1 : 0;
    }

    /** The bills beside the jars of the distribution. */
    private static List<Path> own() throws IOException, URISyntaxException {
        var jar =
                Path.of(
                        ComponentsCommand.class
                                .getProtectionDomain()
                                .getCodeSource()
                                .getLocation()
                                .toURI());
        var folder = Objects.requireNonNull(Objects.requireNonNull(jar.getParent()).getParent());
        var found =
                Stream.of("sbom.json", "sbom-console.json")
                        .map(folder::resolve)
                        .filter(Files::exists)
                        .toList();
        if (found.isEmpty()) {
            throw new RefusedException(
                    0,
                    "There is no bill of materials in %s; name one with --bill.".formatted(folder),
                    List.of());
        }
        return found;
    }

    private boolean tellLicences(List<Component> components, List<String> allowed) {
        var beyond =
                components.stream()
                        .filter(one -> one.licences().stream().noneMatch(allowed::contains))
                        .toList();
        beyond.forEach(one ->
                say(
                        "%s %s: %s"
                                .formatted(
                                        one.name(),
                                        one.version(),
                                        one.licences().isEmpty()
                                                ? "no licence is told"
                                                : "licence "
                                                        + String.join(" or ", one.licences())
                                                        + " is not among those allowed")));
        return !beyond.isEmpty();
    }

    private boolean tellAdvisories(List<Component> components, List<Path> places)
            throws IOException {
        boolean bad = false;
        for (var place : places) {
            for (var advisory : Advisories.at(place)) {
                for (var one : components) {
                    if (advisory.covers(one) && !except.contains(advisory.id())) {
                        say(
                                "%s %s: %s %s"
                                        .formatted(
                                                one.name(),
                                                one.version(),
                                                advisory.id(),
                                                advisory.summary()));
                        bad = true;
                    }
                }
            }
        }
        return bad;
    }
}
