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
        name = "change",
        mixinStandardHelpOptions = true,
        description = "Change the given fields of a record and print it.",
        footer = {"", "Example:", "  sandpiper records change Vessel GH-101 name=\"Sea Campion\""})
public final class RecordsChangeCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(index = "0", paramLabel = "OBJECT", description = "The object's name.")
    String object;

    @Parameters(
            index = "1",
            paramLabel = "KEY",
            description = {
                "The record's key or id. A key of several fields has commas between its values; a"
                        + " comma in a value is written \\,."
            })
    String key;

    @Option(
            names = "--if-version",
            paramLabel = "N",
            description = "Only when the record still has this version.")
    @Nullable Long version;

    @Parameters(
            index = "2..*",
            paramLabel = "FIELD=VALUE",
            description = {
                "Values; an empty one empties the field. charges[1].quantity=2 is for a line item,"
                        + " counted from 1."
            })
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
        var changed = connection.open().records().change(object, key, values, version);
        var out = spec.commandLine().getOut();
        out.println(ManageClient.writePretty(changed.values()));
        out.flush();
        return 0;
    }
}
