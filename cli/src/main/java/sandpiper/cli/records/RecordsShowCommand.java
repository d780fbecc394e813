package sandpiper.cli.records;

import static sandpiper.client.ManageClient.escape;

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
        var path = "/manage/v1/records/" + escape(object) + "/" + escape(key);
        var shown = history ? client.get(path + "/history") : client.get(path);
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(shown));
        } else if (history) {
            var table =
                    new Table(
                            List.of(
                                    "Version", "At", "By", "Via", "What", "Field", "Before",
                                    "After"));
            shown.path("entries")
                    .forEach(entry ->
                            entry.path("changes")
                                    .forEach(change ->
                                            table.add(
                                                    List.of(
                                                            entry.path("version").asString(),
                                                            entry.path("at").asString(),
                                                            entry.path("by").asString(),
                                                            entry.path("via").asString(),
                                                            entry.path("operation").asString(),
                                                            change.path("path").asString(),
                                                            RecordsFindCommand.text(
                                                                    change.path("before")),
                                                            RecordsFindCommand.text(
                                                                    change.path("after"))))));
            table.print(out);
        } else {
            var table = new Table(List.of("Field", "Value"));
            shown.path("values")
                    .properties()
                    .forEach(value -> {
                        if (!value.getValue().isArray()) {
                            table.add(
                                    List.of(
                                            value.getKey(),
                                            RecordsFindCommand.text(value.getValue())));
                        }
                    });
            table.print(out);
            shown.path("values")
                    .properties()
                    .forEach(value -> {
                        if (value.getValue().isArray() && !value.getValue().isEmpty()) {
                            out.println();
                            out.println(value.getKey());
                            var columns = List.copyOf(value.getValue().get(0).propertyNames());
                            var items = new Table(columns);
                            value.getValue()
                                    .forEach(item ->
                                            items.add(
                                                    columns.stream()
                                                            .map(column ->
                                                                    RecordsFindCommand.text(
                                                                            item.path(column)))
                                                            .toList()));
                            items.print(out);
                        }
                    });
        }
        out.flush();
        return 0;
    }
}
