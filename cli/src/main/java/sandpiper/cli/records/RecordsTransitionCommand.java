package sandpiper.cli.records;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.client.ManageClient;

@Command(
        name = "transition",
        mixinStandardHelpOptions = true,
        description = "Take a transition of a record's lifecycle and print the record.",
        footer = {"", "Example:", "  sandpiper records transition Stay ST-2026-000399 confirm"})
public final class RecordsTransitionCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(index = "0", paramLabel = "OBJECT", description = "The object's name.")
    String object;

    @Parameters(index = "1", paramLabel = "KEY", description = "The record's key or id.")
    String key;

    @Parameters(index = "2", paramLabel = "TRANSITION", description = "The transition's name.")
    String transition;

    @Override
    public Integer call() {
        var changed = connection.open().records().transition(object, key, transition);
        var out = spec.commandLine().getOut();
        out.println(ManageClient.writePretty(changed.values()));
        out.flush();
        return 0;
    }
}
