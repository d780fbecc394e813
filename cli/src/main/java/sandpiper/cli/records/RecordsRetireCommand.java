package sandpiper.cli.records;

import static sandpiper.client.ManageClient.escape;

import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
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

    private static final String CONFIRM = "Sandpiper-Confirm";
    private static final String IN_USE = "in-use";

    @Option(names = "--used", description = "Also when others still refer to them.")
    boolean used;

    @Override
    public Integer call() {
        var client = connection.open();
        for (var key : keys) {
            var path = "/manage/v1/records/%s/%s".formatted(escape(object), escape(key));
            try {
                client.delete(path, used ? Map.of(CONFIRM, IN_USE) : Map.of());
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
        var header = CONFIRM + ": " + IN_USE;
        return new RefusedException(
                e.status(),
                String.valueOf(e.getMessage()).replace(header, "--used"),
                e.errors().stream().map(one -> one.replace(header, "--used")).toList());
    }
}
