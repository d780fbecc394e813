package sandpiper.cli;

import static sandpiper.client.ManageClient.escape;

import java.io.IOException;
import java.io.Reader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import me.tongfei.progressbar.ProgressBar;
import me.tongfei.progressbar.ProgressBarBuilder;
import me.tongfei.progressbar.ProgressBarStyle;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

@Command(
        name = "import",
        mixinStandardHelpOptions = true,
        description = {
            "Create or change records by key, from a CSV file (RFC 4180, field names in the first"
                    + " line) or JSON Lines.",
            "Each row is done or refused for itself; a second run changes nothing that is there"
                    + " already."
        },
        footer = {"", "Example:", "  sandpiper records import Owner owners.csv"})
final class RecordsImportCommand implements Callable<Integer> {
    private static final int BATCH = 200;
    private static final int FAULTS_SHOWN = 20;

    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(index = "0", paramLabel = "OBJECT", description = "The object's name.")
    String object;

    @Parameters(
            index = "1",
            paramLabel = "FILE",
            description = "A file that ends in .csv or .jsonl.")
    Path file;

    @Option(names = "--quiet", description = "No progress bar.")
    boolean quiet;

    private int created;
    private int changed;
    private int refused;

    @Override
    public Integer call() throws IOException {
        if (!Files.isReadable(file)) {
            throw new RefusedException(0, "%s cannot be read.".formatted(file), List.of());
        }
        var client = connection.open();
        try (var bar = progress();
                var reader = Files.newBufferedReader(file)) {
            var rows = file.toString().endsWith(".jsonl") ? jsonLines(reader) : csv(reader);
            send(client, rows, bar);
        } catch (java.io.UncheckedIOException e) {
            throw new RefusedException(
                    0,
                    "%s is not right: %s.".formatted(file, String.valueOf(e.getMessage())),
                    List.of());
        }
        var out = spec.commandLine().getOut();
        out.printf(
                "%,d created, %,d changed or the same, %,d refused%n", created, changed, refused);
        out.flush();
        return refused == 0 ? 0 : 1;
    }

    private ProgressBar progress() throws IOException {
        long lines;
        try (Stream<String> all = Files.lines(file)) {
            lines = all.count();
        }
        boolean hidden = quiet || System.console() == null || !System.console().isTerminal();
        return new ProgressBarBuilder()
                .setTaskName(object)
                .setInitialMax(lines)
                .setStyle(ProgressBarStyle.ASCII)
                .setUpdateIntervalMillis(hidden ? Integer.MAX_VALUE : 200)
                .setConsumer(
                        hidden
                                ? new me.tongfei.progressbar.DelegatingProgressBarConsumer(_ -> {})
                                : new me.tongfei.progressbar.ConsoleProgressBarConsumer(System.err))
                .build();
    }

    private static Iterator<Object> csv(Reader reader) throws IOException {
        var records =
                CSVFormat.RFC4180
                        .builder()
                        .setHeader()
                        .setSkipHeaderRecord(true)
                        .setIgnoreEmptyLines(true)
                        .get()
                        .parse(reader)
                        .stream();
        return records.map(RecordsImportCommand::row).iterator();
    }

    private static Object row(CSVRecord record) {
        var values = new LinkedHashMap<String, Object>();
        record.toMap()
                .forEach((name, value) -> {
                    if (!value.isEmpty()) {
                        values.put(name, value);
                    }
                });
        return (Map<String, Object>) values;
    }

    private static Iterator<Object> jsonLines(java.io.BufferedReader reader) {
        return reader.lines()
                .filter(line -> !line.isBlank())
                .map(line -> {
                    try {
                        return (Object) ManageClient.read(line);
                    } catch (JacksonException e) {
                        throw new RefusedException(
                                0,
                                "A line is not JSON: %s.".formatted(e.getOriginalMessage()),
                                List.of());
                    }
                })
                .iterator();
    }

    private void send(ManageClient client, Iterator<Object> rows, ProgressBar bar) {
        long first = 1;
        while (rows.hasNext()) {
            var batch = new ArrayList<Object>();
            while (rows.hasNext() && batch.size() < BATCH) {
                batch.add(rows.next());
            }
            var answer =
                    client.post(
                            "/manage/v1/records/" + escape(object) + "/batch",
                            Map.of("items", batch));
            long row = first;
            for (var result : answer.path("results")) {
                count(row++, result);
            }
            first = row;
            bar.stepBy(batch.size());
        }
    }

    private void count(long row, JsonNode result) {
        switch (result.path("status").asString()) {
            case "created" -> created++;
            case "changed" -> changed++;
            default -> {
                refused++;
                if (refused <= FAULTS_SHOWN) {
                    tell(row, result.path("problem"));
                }
            }
        }
    }

    private void tell(long row, JsonNode problem) {
        var err = spec.commandLine().getErr();
        if (problem.path("errors").isEmpty()) {
            err.printf("row %d: %s%n", row, problem.path("detail").asString());
        }
        problem.path("errors")
                .forEach(
                        error -> err.printf("row %d: %s%n", row, error.path("message").asString()));
        err.flush();
    }
}
