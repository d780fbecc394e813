package sandpiper.cli.draft;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.DiagnosticText;
import sandpiper.cli.common.Plural;
import sandpiper.client.ManageClient;
import sandpiper.model.check.Definitions;

@Command(
        name = "check",
        mixinStandardHelpOptions = true,
        description = "Check definition files; needs no service but for their examples.",
        footer = {
            "",
            "Examples:",
            "  sandpiper check demo/packages",
            "  sandpiper check demo/packages --examples"
        })
public final class CheckCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Parameters(
            paramLabel = "FOLDER",
            description = "A package, or a folder of packages that depend on each other.")
    Path folder;

    @Option(
            names = "--examples",
            description = "Play the examples of requirements as well; a service does that.")
    boolean examples;

    @Mixin Connection connection;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var files = PackageFiles.read(folder);
        var checked = Definitions.check(files);
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(Map.of("diagnostics", checked.diagnostics())));
        } else {
            checked.diagnostics()
                    .forEach(diagnostic -> {
                        out.print(
                                DiagnosticText.of(
                                        diagnostic, files.getOrDefault(diagnostic.file(), "")));
                    });
            out.println(
                    summary(
                            checked.errors().size(),
                            files.size(),
                            List.copyOf(checked.diagnostics()).size()));
        }
        out.flush();
        if (!checked.errors().isEmpty()) {
            return 1;
        }
        return examples ? play(files) : 0;
    }

    private int play(Map<String, String> files) {
        var played = connection.open().draft().play(files);
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(played.json()));
        } else {
            for (var requirement : played.value().requirements()) {
                out.printf(
                        "%-9s%-8s%s%n",
                        requirement.proof().toLowerCase(Locale.ROOT),
                        requirement.id(),
                        requirement.text());
                for (var example : requirement.examples()) {
                    if (!example.holds()) {
                        out.printf(
                                "         %s (%s:%d)%n",
                                example.label(), example.file(), example.line());
                        example.problems().forEach(problem -> out.println("           " + problem));
                    }
                }
            }
            out.printf(
                    "%d proved, %d failing, %d not yet proved.%n",
                    played.value().proved(), played.value().failing(), played.value().open());
        }
        out.flush();
        return played.value().failing() == 0 ? 0 : 1;
    }

    private static String summary(int errors, int files, int all) {
        return errors == 0
                ? "%s in order%s."
                        .formatted(
                                files == 1 ? "1 file is" : files + " files are",
                                all == 0 ? "" : ", with " + Plural.of(all, "warning"))
                : "%s in %s.".formatted(Plural.of(errors, "error"), Plural.of(files, "file"));
    }
}
