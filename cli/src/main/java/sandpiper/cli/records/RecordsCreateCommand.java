package sandpiper.cli.records;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.client.ManageClient;

@Command(
        name = "create",
        mixinStandardHelpOptions = true,
        description = "Create a record and print it.",
        footer = {
            "",
            "Example:",
            "  sandpiper records create Owner code=OW-0900 name=\"Liske Brack\" country=NL"
        })
public final class RecordsCreateCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(index = "0", paramLabel = "OBJECT", description = "The object's name.")
    String object;

    @Parameters(
            index = "1..*",
            paramLabel = "FIELD=VALUE",
            description = "Values; an empty one empties the field.")
    List<String> given = List.of();

    @Option(
            names = "--from",
            paramLabel = "FILE",
            description = "A JSON object with values; - for standard input.")
    @Nullable Path file;

    @Option(
            names = "--attach",
            paramLabel = "FIELD=FILE",
            description = "Puts a file into a field; may be said several times.")
    List<String> attached = List.of();

    @Override
    public Integer call() throws IOException {
        var values = ValueArguments.read(given, file);
        RecordFiles.attach(values, attached);
        var created = connection.open().records().create(object, values);
        var out = spec.commandLine().getOut();
        out.println(ManageClient.writePretty(created.values()));
        out.flush();
        return 0;
    }
}
