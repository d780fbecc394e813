package sandpiper.cli;

import static sandpiper.client.ManageClient.escape;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import org.apache.commons.csv.CSVFormat;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

@Command(
        name = "export",
        mixinStandardHelpOptions = true,
        description =
                "Write records as CSV, or as JSON Lines with their line items. What import reads.",
        footer = {"", "Example:", "  sandpiper records export Stay --as jsonl --out stays.jsonl"})
final class RecordsExportCommand implements Callable<Integer> {
    private static final int PAGE = 500;

    /** The forms an export can have. */
    enum Form {
        CSV,
        JSONL
    }

    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(paramLabel = "OBJECT", description = "The object's name.")
    String object;

    @Option(names = "--filter", paramLabel = "CONDITION", description = "A FEEL condition.")
    @Nullable String filter;

    @Option(
            names = "--as",
            defaultValue = "csv",
            description = "The form: ${COMPLETION-CANDIDATES} (default: ${DEFAULT-VALUE}).")
    Form form;

    @Option(
            names = "--out",
            paramLabel = "FILE",
            description = "Write here instead of to standard output.")
    @Nullable Path file;

    @Override
    public Integer call() throws IOException {
        if (file == null) {
            write(spec.commandLine().getOut());
            return 0;
        }
        try (var writer = new PrintWriter(Files.newBufferedWriter(file))) {
            long written = write(writer);
            spec.commandLine().getErr().printf("%,d records written to %s%n", written, file);
            spec.commandLine().getErr().flush();
        }
        return 0;
    }

    private long write(Writer writer) throws IOException {
        var client = connection.open();
        long written = 0;
        List<String> columns = List.of();
        String after = null;
        do {
            var query = new StringBuilder("?sort=created&limit=").append(PAGE);
            RecordsFindCommand.append(query, "filter", filter);
            RecordsFindCommand.append(query, "after", after);
            var page = client.get("/manage/v1/records/" + escape(object) + query);
            for (var record : page.path("records")) {
                var values = record.path("values");
                if (form == Form.JSONL) {
                    writer.write(values.toString());
                    writer.write('\n');
                } else {
                    if (columns.isEmpty()) {
                        columns = columns(values);
                        row(writer, columns);
                    }
                    row(
                            writer,
                            columns.stream()
                                    .map(column -> RecordsFindCommand.text(values.path(column)))
                                    .toList());
                }
                written++;
            }
            after = page.path("next").isNull() ? null : page.path("next").asString();
        } while (after != null);
        writer.flush();
        return written;
    }

    private static List<String> columns(JsonNode values) {
        var columns = new ArrayList<String>();
        values.properties()
                .forEach(value -> {
                    if (!value.getValue().isArray()) {
                        columns.add(value.getKey());
                    }
                });
        return columns;
    }

    private static void row(Writer writer, List<String> values) throws IOException {
        writer.write(CSVFormat.RFC4180.format(values.toArray()));
        writer.write("\r\n");
    }
}
