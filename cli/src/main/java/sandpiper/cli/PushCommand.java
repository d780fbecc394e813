package sandpiper.cli;

import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "push",
        mixinStandardHelpOptions = true,
        description = "Put packages into the draft of a service; other packages there stay.",
        footer = {"", "Example:", "  sandpiper push demo/packages/gullhaven"})
final class PushCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(paramLabel = "FOLDER", description = "A package, or a folder of packages.")
    Path folder;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var files = PackageFiles.read(folder);
        var pushed = connection.open().post("/manage/v1/draft/push", Map.of("files", files));
        var out = spec.commandLine().getOut();
        int errors = 0;
        for (var diagnostic : pushed.path("diagnostics")) {
            errors += diagnostic.path("severity").asString("").equals("ERROR") ? 1 : 0;
        }
        if (json) {
            out.println(pushed.toPrettyString());
        } else {
            pushed.path("added").forEach(path -> out.println("added    " + path.asString()));
            pushed.path("changed").forEach(path -> out.println("changed  " + path.asString()));
            pushed.path("removed").forEach(path -> out.println("removed  " + path.asString()));
            pushed.path("diagnostics")
                    .forEach(diagnostic ->
                            out.printf(
                                    "%s:%d:%d: %s %s%n",
                                    diagnostic.path("file").asString(),
                                    diagnostic.path("line").asInt(),
                                    diagnostic.path("column").asInt(),
                                    diagnostic.path("code").asString(),
                                    diagnostic.path("message").asString()));
            out.println(
                    errors == 0
                            ? "The draft is in order; \"sandpiper release\" makes it live."
                            : "The draft is kept, but has %d errors.".formatted(errors));
        }
        out.flush();
        return errors == 0 ? 0 : 1;
    }
}
