package sandpiper.cli.draft;

import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;

@Command(
        name = "kept",
        mixinStandardHelpOptions = true,
        description = {
            "Show values that releases took out of use and that are kept aside.",
            "They come back when what they belong to does: with take-back, or when a release has it"
                    + " again by the same name."
        },
        footer = {"", "Examples:", "  sandpiper kept", "  sandpiper kept --forget 3"})
public final class KeptCommand extends AnsweringCommand implements Callable<Integer> {
    @Mixin Connection connection;

    @Option(
            names = "--forget",
            paramLabel = "NUMBER",
            description = "Drop the values of this number for good.")
    @Nullable Long forgotten;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var draft = connection.open().draft();
        if (forgotten != null) {
            draft.forget(forgotten);
            return say("%d is dropped.".formatted(forgotten));
        }
        var kept = draft.kept();
        if (json) {
            return sayJson(kept);
        }
        if (kept.value().isEmpty()) {
            return say("Nothing is kept aside.");
        }
        var table = new Table(List.of("Number", "What", "Values", "Last in release", "Until"));
        kept.value()
                .forEach(one ->
                        table.add(
                                List.of(
                                        String.valueOf(one.number()),
                                        one.what(),
                                        "%,d".formatted(one.rows()),
                                        String.valueOf(one.release()),
                                        one.until())));
        return say(table);
    }
}
