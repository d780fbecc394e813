package sandpiper.cli.records;

import java.util.ArrayList;
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
import sandpiper.cli.common.Table;
import sandpiper.client.ManageClient;
import sandpiper.client.RecordCalls;
import tools.jackson.databind.JsonNode;

@Command(
        name = "find",
        mixinStandardHelpOptions = true,
        description = "List records.",
        footer = {
            "",
            "Example:",
            "  sandpiper records find Stay --filter 'state = \"Alongside\" and berth.pier = \"N\"'"
                    + " --sort -arrival"
        })
public final class RecordsFindCommand implements Callable<Integer> {
    private static final int MOST_COLUMNS = 7;

    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(paramLabel = "OBJECT", description = "The object's name, such as Stay.")
    String object;

    @Option(names = "--filter", paramLabel = "CONDITION", description = "A FEEL condition.")
    @Nullable String filter;

    @Option(names = "--search", paramLabel = "WORDS", description = "Words to look for in texts.")
    @Nullable String search;

    @Option(
            names = "--sort",
            paramLabel = "FIELDS",
            description = "Fields with commas between them, a minus before those that run down.")
    @Nullable String sort;

    @Option(
            names = "--limit",
            defaultValue = "20",
            description = "Most records (default: ${DEFAULT-VALUE}).")
    int limit;

    @Option(
            names = "--fields",
            split = ",",
            paramLabel = "FIELD",
            description = "The columns to show.")
    @Nullable List<String> fields;

    @Option(names = "--json", description = "Print JSON.")
    boolean json;

    @Override
    public Integer call() {
        var query = new RecordCalls.Query(limit, true, filter, search, sort, null, null);
        var answer = connection.open().records().find(object, query);
        var page = answer.value();
        var out = spec.commandLine().getOut();
        if (json) {
            out.println(ManageClient.writePretty(answer.json()));
        } else {
            var table = table(page.records());
            table.print(out);
            out.printf("%d of %d%n", page.records().size(), page.total());
        }
        out.flush();
        return 0;
    }

    private Table table(List<RecordCalls.Stored> records) {
        var columns = fields == null ? usualColumns(records) : fields;
        var table = new Table(columns);
        records.forEach(record ->
                table.add(
                        columns.stream()
                                .map(column -> text(record.values().path(column)))
                                .toList()));
        return table;
    }

    private static List<String> usualColumns(List<RecordCalls.Stored> records) {
        var columns = new ArrayList<String>();
        if (!records.isEmpty()) {
            records.getFirst()
                    .values()
                    .properties()
                    .forEach(value -> {
                        if (columns.size() < MOST_COLUMNS && !value.getValue().isArray()) {
                            columns.add(value.getKey());
                        }
                    });
        }
        return columns;
    }

    /** A value as it stands in a table or a file. */
    static String text(@Nullable JsonNode value) {
        if (value == null || value.isNull() || value.isMissingNode()) {
            return "";
        }
        if (RecordFiles.isOne(value)) {
            return RecordFiles.name(value);
        }
        return value.isContainer() ? value.toString() : value.asString();
    }
}
