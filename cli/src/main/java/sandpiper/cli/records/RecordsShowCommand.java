package sandpiper.cli.records;

import java.io.PrintWriter;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Table;
import sandpiper.client.ManageClient;
import sandpiper.client.RecordCalls;
import tools.jackson.databind.JsonNode;

@Command(
        name = "show",
        mixinStandardHelpOptions = true,
        description = "Show one record with its line items, and its history when asked.",
        footer = {"", "Example:", "  sandpiper records show Stay ST-2026-000042 --history"})
public final class RecordsShowCommand implements Callable<Integer> {
    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(index = "0", paramLabel = "OBJECT", description = "The object's name.")
    String object;

    @Parameters(index = "1", paramLabel = "KEY", description = "The record's key or id.")
    String key;

    @Option(names = "--history", description = "Show who changed what.")
    boolean history;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var client = connection.open();
        var out = spec.commandLine().getOut();
        if (history) {
            var changes = client.records().history(object, key);
            if (json) {
                out.println(ManageClient.writePretty(changes.json()));
            } else {
                table(changes.value()).print(out);
            }
        } else {
            var shown = client.records().read(object, key);
            if (json) {
                out.println(ManageClient.writePretty(shown.json()));
            } else {
                print(shown.value().values(), out);
            }
        }
        out.flush();
        return 0;
    }

    private static Table table(RecordCalls.History history) {
        var table =
                new Table(
                        List.of("Version", "At", "By", "Via", "What", "Field", "Before", "After"));
        for (var entry : history.entries()) {
            for (var change : entry.changes()) {
                table.add(
                        List.of(
                                String.valueOf(entry.version()),
                                entry.at(),
                                entry.by(),
                                entry.via(),
                                entry.operation(),
                                change.path(),
                                RecordsFindCommand.text(change.before()),
                                RecordsFindCommand.text(change.after())));
            }
        }
        return table;
    }

    /** Values as a table, then line items, each kind as a table of its own. */
    private static void print(JsonNode values, PrintWriter out) {
        var table = new Table(List.of("Field", "Value"));
        values.properties()
                .forEach(value -> {
                    if (!value.getValue().isArray()) {
                        table.add(
                                List.of(value.getKey(), RecordsFindCommand.text(value.getValue())));
                    }
                });
        table.print(out);
        values.properties()
                .forEach(value -> {
                    if (value.getValue().isArray() && !value.getValue().isEmpty()) {
                        out.println();
                        out.println(value.getKey());
                        items(value.getValue()).print(out);
                    }
                });
    }

    private static Table items(JsonNode items) {
        var columns = List.copyOf(items.get(0).propertyNames());
        var table = new Table(columns);
        items.forEach(item ->
                table.add(
                        columns.stream()
                                .map(column -> RecordsFindCommand.text(item.path(column)))
                                .toList()));
        return table;
    }
}
