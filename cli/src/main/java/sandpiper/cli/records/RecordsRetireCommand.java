package sandpiper.cli.records;

import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.client.RecordCalls;
import sandpiper.client.RefusedException;

@Command(
        name = "retire",
        mixinStandardHelpOptions = true,
        description = "Take records out of use, or delete them where their object says so.",
        footer = {"", "Example:", "  sandpiper records retire Vessel GH-101 GH-102"})
public final class RecordsRetireCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(index = "0", paramLabel = "OBJECT", description = "The object's name.")
    String object;

    @Parameters(index = "1..*", arity = "1..*", paramLabel = "KEY", description = "Keys or ids.")
    List<String> keys;

    @Option(names = "--used", description = "Also when others still refer to them.")
    boolean used;

    @Override
    public Integer call() {
        var client = connection.open();
        for (var key : keys) {
            try {
                client.records().retire(object, key, used);
            } catch (RefusedException e) {
                throw inWordsOfOptions(e);
            }
        }
        var out = spec.commandLine().getOut();
        out.printf("%,d retired%n", keys.size());
        out.flush();
        return 0;
    }

    /** A header means nothing to who types commands. */
    private static RefusedException inWordsOfOptions(RefusedException e) {
        var header = RecordCalls.USED_CONFIRMATION;
        return new RefusedException(
                e.status(),
                String.valueOf(e.getMessage()).replace(header, "--used"),
                e.errors().stream().map(one -> one.replace(header, "--used")).toList());
    }
}
