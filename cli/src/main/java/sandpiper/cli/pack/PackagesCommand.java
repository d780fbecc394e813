package sandpiper.cli.pack;

import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.client.DraftCalls;

@Command(
        name = "packages",
        mixinStandardHelpOptions = true,
        description =
                "Show which packages are live, from where they came and whether files were altered"
                        + " since.",
        footer = {"", "Example:", "  sandpiper packages"})
public final class PackagesCommand extends AnsweringCommand implements Callable<Integer> {
    @Mixin Connection connection;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var packages = connection.open().draft().packages();
        if (json) {
            return sayJson(packages);
        }
        if (packages.value().isEmpty()) {
            return say("There are no packages yet.");
        }
        var table = new Table(List.of("Package", "Version", "Content", "From", "Altered"));
        packages.value()
                .forEach(one ->
                        table.add(
                                List.of(
                                        one.name(),
                                        one.version(),
                                        one.content(),
                                        from(one.origin()),
                                        joined(one.altered()))));
        return say(table);
    }

    private static String from(DraftCalls.@Nullable Origin origin) {
        if (origin == null) {
            return "made here";
        }
        var place =
                origin.release() == null
                        ? "a folder"
                        : "%s, release %d"
                                .formatted(
                                        origin.instance().isEmpty()
                                                ? "an instance"
                                                : origin.instance(),
                                        origin.release());
        return "%s, by %s at %s%s"
                .formatted(
                        place,
                        origin.by(),
                        origin.at(),
                        origin.signer() == null ? "" : ", signed " + origin.signer());
    }
}
