package sandpiper.cli;

import static sandpiper.client.ManageClient.escape;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import me.tongfei.progressbar.ProgressBar;
import me.tongfei.progressbar.ProgressBarBuilder;
import me.tongfei.progressbar.ProgressBarStyle;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import tools.jackson.databind.JsonNode;

@Command(
        name = "import",
        mixinStandardHelpOptions = true,
        description = {
            "Create or change records by key, from a CSV file (RFC 4180, field names in the first"
                    + " line) or JSON Lines.",
            "Each row is done or refused for itself; a second run changes nothing that is there"
                    + " already. An import that was interrupted goes on with --resume."
        },
        footer = {"", "Example:", "  sandpiper records import Owner owners.csv"})
final class RecordsImportCommand implements Callable<Integer> {
    private static final int BATCH = 500;

    /** Batches on their way at once; the service does one after the other. */
    private static final int AT_ONCE = 2;

    private static final int MOST_TRIES = 8;
    private static final long BUSY_WAIT_MILLIS = 500;
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

    @Option(
            names = "--refused",
            paramLabel = "FILE",
            description = {
                "Write the rows that are refused there, each with its number and why. Mended, it"
                        + " can be imported itself."
            })
    @Nullable Path refusedFile;

    @Option(names = "--resume", description = "Go on where an import of this file was interrupted.")
    boolean resume;

    private int created;
    private int changed;
    private int refused;

    @Override
    public Integer call() throws IOException {
        if (!Files.isReadable(file)) {
            throw new RefusedException(0, "%s cannot be read.".formatted(file), List.of());
        }
        var client = connection.open();
        var place = new ImportPlace(file, object, client.server());
        long done = resume ? place.read() : 0;
        try (var bar = progress();
                var rows = Rows.of(file);
                var kept = kept(rows)) {
            for (long i = 0; i < done && rows.values().hasNext(); i++) {
                rows.values().next();
            }
            bar.stepBy(done);
            send(new Sending(client, place, bar, kept), rows.values(), done);
        } catch (java.io.UncheckedIOException e) {
            throw new RefusedException(
                    0,
                    "%s is not right: %s.".formatted(file, String.valueOf(e.getMessage())),
                    List.of());
        }
        place.done();
        var out = spec.commandLine().getOut();
        out.printf(
                "%,d created, %,d changed or the same, %,d refused%n", created, changed, refused);
        out.flush();
        return refused == 0 ? 0 : 1;
    }

    /** Refused rows are kept only where that was asked for. */
    private @Nullable RefusedRows kept(Rows rows) throws IOException {
        return refusedFile == null ? null : new RefusedRows(refusedFile, rows.columns());
    }

    private ProgressBar progress() throws IOException {
        boolean hidden = quiet || System.console() == null || !System.console().isTerminal();
        return new ProgressBarBuilder()
                .setTaskName(object)
                .setInitialMax(hidden ? 0 : Rows.lines(file))
                .setStyle(ProgressBarStyle.ASCII)
                .setUpdateIntervalMillis(hidden ? Integer.MAX_VALUE : 200)
                .setConsumer(
                        hidden
                                ? new me.tongfei.progressbar.DelegatingProgressBarConsumer(_ -> {})
                                : new me.tongfei.progressbar.ConsoleProgressBarConsumer(System.err))
                .build();
    }

    /** What sending needs. */
    private record Sending(
            ManageClient client, ImportPlace place, ProgressBar bar, @Nullable RefusedRows kept) {}

    /** Rows on their way, the first of which has a number, counted from 1. */
    private record Batch(long first, List<Map<String, Object>> rows, Future<JsonNode> answer) {}

    /** Sends one batch while the next is read and the one before is written down. */
    private void send(Sending sending, Iterator<Map<String, Object>> rows, long done)
            throws IOException {
        var onTheirWay = new ArrayDeque<Batch>();
        long next = done + 1;
        try (var pool = Executors.newFixedThreadPool(AT_ONCE)) {
            while (rows.hasNext() || !onTheirWay.isEmpty()) {
                if (rows.hasNext() && onTheirWay.size() < AT_ONCE) {
                    var batch = new ArrayList<Map<String, Object>>();
                    while (rows.hasNext() && batch.size() < BATCH) {
                        batch.add(rows.next());
                    }
                    onTheirWay.add(
                            new Batch(
                                    next, batch, pool.submit(() -> post(sending.client(), batch))));
                    next += batch.size();
                } else {
                    finish(sending, onTheirWay.remove());
                }
            }
        }
    }

    /** Waits and asks again while the service has too much to do. */
    private JsonNode post(ManageClient client, List<Map<String, Object>> batch)
            throws InterruptedException {
        for (int tries = 1; ; tries++) {
            try {
                return client.post(
                        "/manage/v1/records/" + escape(object) + "/batch", Map.of("items", batch));
            } catch (RefusedException e) {
                if (tries == MOST_TRIES || (e.status() != 429 && e.status() != 503)) {
                    throw e;
                }
                Thread.sleep(BUSY_WAIT_MILLIS * tries);
            }
        }
    }

    private void finish(Sending sending, Batch batch) throws IOException {
        long row = batch.first();
        for (var result : answer(batch).path("results")) {
            count(sending, row, batch.rows().get((int) (row - batch.first())), result);
            row++;
        }
        sending.place().reached(row - 1);
        sending.bar().stepBy(batch.rows().size());
    }

    private JsonNode answer(Batch batch) {
        try {
            return batch.answer().get();
        } catch (ExecutionException e) {
            var said =
                    e.getCause() instanceof RefusedException known
                            ? known
                            : new RefusedException(0, String.valueOf(e.getCause()), List.of());
            throw new RefusedException(
                    said.status(),
                    "%s Stopped before row %,d; --resume goes on there."
                            .formatted(said.getMessage(), batch.first()),
                    said.errors());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new RefusedException(0, "Interrupted.", List.of());
        }
    }

    private void count(Sending sending, long row, Map<String, Object> values, JsonNode result)
            throws IOException {
        switch (result.path("status").asString()) {
            case "created" -> created++;
            case "changed" -> changed++;
            default -> {
                refused++;
                var why = why(result.path("problem"));
                if (sending.kept() != null) {
                    sending.kept().add(row, values, why);
                }
                if (refused <= FAULTS_SHOWN) {
                    tell(row, why);
                }
            }
        }
    }

    private static List<String> why(JsonNode problem) {
        var why = new ArrayList<String>();
        problem.path("errors").forEach(error -> why.add(error.path("message").asString()));
        return why.isEmpty() ? List.of(problem.path("detail").asString()) : why;
    }

    private void tell(long row, List<String> why) {
        var err = spec.commandLine().getErr();
        why.forEach(one -> err.printf("row %d: %s%n", row, one));
        err.flush();
    }
}
