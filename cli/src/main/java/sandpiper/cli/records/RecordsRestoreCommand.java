package sandpiper.cli.records;

import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;

@Command(
        name = "restore",
        mixinStandardHelpOptions = true,
        description = "Take retired records back into use.",
        footer = {"", "Example:", "  sandpiper records restore Vessel GH-101 GH-102"})
public final class RecordsRestoreCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(index = "0", paramLabel = "OBJECT", description = "The object's name.")
    String object;

    @Parameters(index = "1..*", arity = "1..*", paramLabel = "KEY", description = "Keys or ids.")
    List<String> keys;

    @Override
    public Integer call() {
        var client = connection.open();
        for (var key : keys) {
            client.records().restore(object, key);
        }
        var out = spec.commandLine().getOut();
        out.printf("%,d restored%n", keys.size());
        out.flush();
        return 0;
    }
}
