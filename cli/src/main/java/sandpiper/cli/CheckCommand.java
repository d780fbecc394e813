package sandpiper.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.client.ManageClient;
import sandpiper.model.check.Definitions;

@Command(
        name = "check",
        mixinStandardHelpOptions = true,
        description = "Check definition files; needs no service.",
        footer = {"", "Example:", "  sandpiper check demo/packages"})
final class CheckCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Parameters(
            paramLabel = "FOLDER",
            description = "A package, or a folder of packages that depend on each other.")
    Path folder;

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
        return checked.errors().isEmpty() ? 0 : 1;
    }

    private static String summary(int errors, int files, int all) {
        return errors == 0
                ? "%d files are in order%s."
                        .formatted(files, all == 0 ? "" : ", with %d warnings".formatted(all))
                : "%d %s in %d files.".formatted(errors, errors == 1 ? "error" : "errors", files);
    }
}
