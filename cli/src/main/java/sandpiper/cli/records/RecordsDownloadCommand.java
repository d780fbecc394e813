package sandpiper.cli.records;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.cli.common.Connection;
import sandpiper.client.RefusedException;
import tools.jackson.databind.JsonNode;

@Command(
        name = "download",
        mixinStandardHelpOptions = true,
        description = "Write a file of a record to this machine.",
        footer = {
            "",
            "Example:",
            "  sandpiper records download Vessel GH-101 papers --out papers.pdf"
        })
public final class RecordsDownloadCommand implements Callable<Integer> {
    private static final Pattern ITEM = Pattern.compile("(\\w+)\\[([1-9]\\d{0,3})]\\.(\\w+)");

    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(index = "0", paramLabel = "OBJECT", description = "The object's name.")
    String object;

    @Parameters(index = "1", paramLabel = "KEY", description = "The record's key or id.")
    String key;

    @Parameters(
            index = "2",
            paramLabel = "FIELD",
            description = "The field; receipts[1].scan is that of a line item, counted from 1.")
    String field;

    @Option(
            names = "--out",
            paramLabel = "FILE",
            description = "Write here; under the file's own name in this folder when absent.")
    @Nullable Path to;

    @Override
    public Integer call() throws IOException {
        var client = connection.open();
        var record = client.records().read(object, key).value();
        var item = ITEM.matcher(field);
        var place = field;
        var value = record.values().path(field);
        if (item.matches()) {
            var of = record.values().path(item.group(1)).path(Integer.parseInt(item.group(2)) - 1);
            value = of.path(item.group(3));
            place = "%s/%d/%s".formatted(item.group(1), of.path("line").asLong(), item.group(3));
        }
        var target = target(value);
        var bytes = client.records().file(object, record.id(), place);
        Files.write(target, bytes);
        spec.commandLine().getErr().printf("%,d bytes written to %s%n", bytes.length, target);
        spec.commandLine().getErr().flush();
        return 0;
    }

    /** A name that somebody gave decides about no folder, and takes no other file's place. */
    private Path target(JsonNode value) {
        if (!RecordFiles.isOne(value)) {
            throw new RefusedException(
                    0, "%s %s has no file in %s.".formatted(object, key, field), List.of());
        }
        if (to != null) {
            return to;
        }
        var named = Path.of(Path.of(RecordFiles.name(value)).getFileName().toString());
        if (Files.exists(named)) {
            throw new RefusedException(
                    0,
                    "%s is there already; say with --out where to write.".formatted(named),
                    List.of());
        }
        return named;
    }
}
