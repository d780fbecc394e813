package sandpiper.cli.records;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.apache.commons.csv.CSVFormat;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.client.ManageClient;
import sandpiper.client.RecordCalls;

@Command(
        name = "export",
        mixinStandardHelpOptions = true,
        description =
                "Write records as CSV or JSON Lines, line items and languages included. What import"
                        + " reads.",
        footer = {"", "Example:", "  sandpiper records export Stay --as jsonl --out stays.jsonl"})
public final class RecordsExportCommand implements Callable<Integer> {
    private static final int PAGE = 500;

    /** The forms an export can have. */
    enum Form {
        CSV,
        JSONL
    }

    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(
            arity = "0..1",
            paramLabel = "OBJECT",
            description = "The object's name; none with --all.")
    @Nullable String object;

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

    @Option(names = "--retired", description = "Retired records too; they say so in retired.")
    boolean retired;

    @Option(
            names = "--files",
            description = {
                "What is in files, too, so that they can be brought in elsewhere. Always with"
                        + " --all."
            })
    boolean files;

    @Option(
            names = "--all",
            paramLabel = "DIR",
            description = {
                "Write every object to a JSON Lines file of its own there, retired records too:"
                        + " what records import DIR --whole reads."
            })
    @Nullable Path folder;

    @Override
    public Integer call() throws IOException {
        var client = connection.open();
        if (folder != null) {
            return everything(client, folder);
        }
        var name = object;
        if (name == null) {
            throw new CommandLine.ParameterException(
                    spec.commandLine(), "Say which object, or --all with a folder.");
        }
        var shape = ObjectShape.of(client, name);
        if (file == null) {
            write(client, shape, spec.commandLine().getOut());
            return 0;
        }
        try (var writer = new PrintWriter(Files.newBufferedWriter(file))) {
            tell(write(client, shape, writer), file);
        }
        return 0;
    }

    private int everything(ManageClient client, Path into) throws IOException {
        Files.createDirectories(into);
        form = Form.JSONL;
        retired = true;
        files = true;
        for (var shape : ObjectShape.all(client).values()) {
            var to = into.resolve(shape.name() + ".jsonl");
            try (var writer = new PrintWriter(Files.newBufferedWriter(to))) {
                tell(write(client, shape, writer), to);
            }
        }
        return 0;
    }

    private void tell(long written, Path to) {
        spec.commandLine().getErr().printf("%,d records written to %s%n", written, to);
        spec.commandLine().getErr().flush();
    }

    private long write(ManageClient client, ObjectShape shape, Writer writer) throws IOException {
        var rows = new RecordRows(shape);
        long written = 0;
        List<String> columns = List.of();
        String after = null;
        do {
            var query =
                    new RecordCalls.Query(
                            PAGE, false, filter, null, "created", retired ? "with" : null, after);
            var page = client.records().find(shape.name(), query).value();
            for (var record : page.records()) {
                if (files) {
                    RecordFiles.fill(client, shape.name(), record);
                }
                var values = record.values();
                if (form == Form.JSONL) {
                    writer.write(json(record));
                    writer.write('\n');
                } else {
                    if (columns.isEmpty()) {
                        columns = rows.columns(values, retired);
                        row(writer, columns);
                    }
                    for (var one : rows.rows(columns, record)) {
                        row(writer, one);
                    }
                }
                written++;
            }
            after = page.next();
        } while (after != null);
        writer.flush();
        return written;
    }

    private String json(RecordCalls.Stored record) {
        var values = record.values();
        if (!record.retired()) {
            return values.toString();
        }
        var all = ManageClient.members(values.toString());
        all.put("retired", true);
        return ManageClient.write(all);
    }

    private static void row(Writer writer, List<String> values) throws IOException {
        writer.write(CSVFormat.RFC4180.format(values.toArray()));
        writer.write("\r\n");
    }
}
