package sandpiper.cli.records;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
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
import sandpiper.cli.common.Connection;
import sandpiper.client.ManageClient;
import sandpiper.client.RecordCalls;
import sandpiper.client.RecordCalls.Imported;
import sandpiper.client.RecordCalls.ImportedRow;
import sandpiper.client.RecordCalls.Refusal;
import sandpiper.client.RefusedException;

@Command(
        name = "import",
        mixinStandardHelpOptions = true,
        description = {
            "Create or change records by key, from a CSV file (RFC 4180, field names in the first"
                    + " line) or JSON Lines.",
            "Each row is done or refused for itself; a second run changes nothing that is there"
                    + " already. An import that was interrupted goes on with --resume."
        },
        footer = {
            "",
            "In CSV, name.de is a text in one language, charges.quantity a field of a line item;"
                    + " rows of one key that follow each other are one record.",
            "",
            "Examples:",
            "  sandpiper records import Owner owners.csv",
            "  sandpiper records import backup --whole"
        })
public final class RecordsImportCommand implements Callable<Integer> {
    private static final int BATCH = 500;

    /** Characters after which a batch is full: with files in its rows it gets heavy. */
    private static final long HEAVY = 500_000;

    /** The code of a reference to a record that is not there. */
    private static final String NOT_THERE = "SP4106";

    /** Batches on their way at once; the service does one after the other. */
    private static final int AT_ONCE = 2;

    private static final int MOST_TRIES = 8;
    private static final long BUSY_WAIT_MILLIS = 500;
    private static final int FAULTS_SHOWN = 20;

    @Spec CommandSpec spec;

    @Mixin Connection connection;

    @Parameters(
            arity = "1..2",
            paramLabel = "OBJECT FILE | DIR",
            description = {
                "An object's name and a file that ends in .csv or .jsonl; or a folder that"
                        + " records export --all has written."
            })
    List<String> what;

    @Option(
            names = "--whole",
            description = {
                "Take over what only the service sets: states, numbers, read-only fields, and that"
                        + " a record is retired. Needs the duty operate."
            })
    boolean whole;

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

    private String object = "";
    private Path file = Path.of("");

    /** Rows that refer to what is not there yet; asked again when the others are done. */
    private final List<Waiting> waiting = new ArrayList<>();

    @Override
    public Integer call() throws IOException {
        var client = connection.open();
        if (what.size() == 2) {
            importFile(client, ObjectShape.of(client, what.getFirst()), Path.of(what.getLast()));
        } else {
            importFolder(client, Path.of(what.getFirst()));
        }
        askAgain(client);
        refuseWaiting(null);
        var out = spec.commandLine().getOut();
        out.printf(
                "%,d created, %,d changed or the same, %,d refused%n", created, changed, refused);
        out.flush();
        return refused == 0 ? 0 : 1;
    }

    /** Every file of a folder, objects that others refer to first. */
    private void importFolder(ManageClient client, Path folder) throws IOException {
        var shapes = ObjectShape.all(client);
        var left = new ArrayList<ObjectShape>();
        for (var shape : shapes.values()) {
            if (Files.exists(folder.resolve(shape.name() + ".jsonl"))) {
                left.add(shape);
            }
        }
        if (left.isEmpty()) {
            throw new RefusedException(
                    0,
                    "%s has no file OBJECT.jsonl of an object there is.".formatted(folder),
                    List.of());
        }
        while (!left.isEmpty()) {
            var names = left.stream().map(ObjectShape::name).toList();
            var next =
                    left.stream()
                            .filter(shape ->
                                    shape.refersTo().stream()
                                            .noneMatch(to ->
                                                    !to.equals(shape.name()) && names.contains(to)))
                            .findFirst()
                            .orElse(left.getFirst());
            left.remove(next);
            importFile(client, next, folder.resolve(next.name() + ".jsonl"));
        }
    }

    private void importFile(ManageClient client, ObjectShape shape, Path from) throws IOException {
        object = shape.name();
        file = from;
        if (!Files.isReadable(file)) {
            throw new RefusedException(0, "%s cannot be read.".formatted(file), List.of());
        }
        var place = new ImportPlace(file, object, client.server());
        long done = resume ? place.read() : 0;
        try (var bar = progress();
                var rows = Rows.of(file, shape);
                var kept = kept(rows)) {
            for (long i = 0; i < done && rows.values().hasNext(); i++) {
                rows.values().next();
            }
            bar.stepBy(done);
            send(new Sending(client, place, bar, kept), rows.values(), done);
            if (what.size() == 2) {
                askAgain(client);
                refuseWaiting(kept);
            }
        } catch (java.io.UncheckedIOException e) {
            throw new RefusedException(
                    0,
                    "%s is not right: %s.".formatted(file, String.valueOf(e.getMessage())),
                    List.of());
        }
        place.done();
    }

    /** A row that refers to what is not there, with its number in its file and why. */
    private record Waiting(
            String object, long row, Map<String, Object> values, @Nullable Refusal problem) {}

    /** Asks again as long as that helps; in the end without what refers in a circle. */
    private void askAgain(ManageClient client) {
        boolean stripped = false;
        while (!waiting.isEmpty()) {
            var again = List.copyOf(waiting);
            waiting.clear();
            for (var one : again) {
                ask(client, one, one.values());
            }
            if (waiting.size() < again.size()) {
                continue;
            }
            if (stripped) {
                return;
            }
            stripped = true;
            for (var one : List.copyOf(waiting)) {
                one(client, one.object(), without(one));
            }
        }
    }

    private void ask(ManageClient client, Waiting row, Map<String, Object> values) {
        var result = one(client, row.object(), values);
        switch (result.status()) {
            case "created" -> created++;
            case "changed" -> changed++;
            default ->
                    waiting.add(
                            new Waiting(row.object(), row.row(), row.values(), result.problem()));
        }
    }

    private ImportedRow one(ManageClient client, String of, Map<String, Object> values) {
        try {
            return post(client, of, List.of(values)).results().getFirst();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new RefusedException(0, "Interrupted.", List.of());
        }
    }

    /** The values without the references that lead nowhere yet. */
    private static Map<String, Object> without(Waiting row) {
        var values = new LinkedHashMap<>(row.values());
        if (row.problem() != null) {
            row.problem().errors().forEach(error -> values.remove(error.pointer().substring(1)));
        }
        return values;
    }

    private void refuseWaiting(@Nullable RefusedRows kept) throws IOException {
        for (var one : waiting) {
            refuse(kept, one.row(), one.values(), why(one.problem()));
        }
        waiting.clear();
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
    private record Batch(long first, List<Map<String, Object>> rows, Future<Imported> answer) {}

    /** Sends one batch while the next is read and the one before is written down. */
    private void send(Sending sending, Iterator<Map<String, Object>> rows, long done)
            throws IOException {
        var onTheirWay = new ArrayDeque<Batch>();
        long next = done + 1;
        try (var pool = Executors.newFixedThreadPool(AT_ONCE)) {
            while (rows.hasNext() || !onTheirWay.isEmpty()) {
                if (rows.hasNext() && onTheirWay.size() < AT_ONCE) {
                    var batch = new ArrayList<Map<String, Object>>();
                    long weight = 0;
                    while (rows.hasNext() && batch.size() < BATCH && weight < HEAVY) {
                        var row = rows.next();
                        batch.add(row);
                        weight += weight(row);
                    }
                    onTheirWay.add(
                            new Batch(
                                    next,
                                    batch,
                                    pool.submit(() -> post(sending.client(), object, batch))));
                    next += batch.size();
                } else {
                    finish(sending, onTheirWay.remove());
                }
            }
        }
    }

    /** About how many characters a value has when it is sent. */
    private static long weight(@Nullable Object value) {
        return switch (value) {
            case String text -> text.length();
            case Map<?, ?> map -> map.values().stream().mapToLong(one -> weight(one)).sum();
            case List<?> list -> list.stream().mapToLong(one -> weight(one)).sum();
            case null, default -> String.valueOf(value).length();
        };
    }

    /** Waits and asks again while the service has too much to do. */
    private Imported post(ManageClient client, String of, List<Map<String, Object>> batch)
            throws InterruptedException {
        for (int tries = 1; ; tries++) {
            try {
                return client.records().bringIn(of, batch, whole);
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
        for (var result : answer(batch).results()) {
            count(sending, row, batch.rows().get((int) (row - batch.first())), result);
            row++;
        }
        sending.place().reached(row - 1);
        sending.bar().stepBy(batch.rows().size());
    }

    private Imported answer(Batch batch) {
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

    private void count(Sending sending, long row, Map<String, Object> values, ImportedRow result)
            throws IOException {
        switch (result.status()) {
            case "created" -> created++;
            case "changed" -> changed++;
            default -> {
                if (isWaiting(result.problem())) {
                    waiting.add(new Waiting(object, row, values, result.problem()));
                } else {
                    refuse(sending.kept(), row, values, why(result.problem()));
                }
            }
        }
    }

    private void refuse(
            @Nullable RefusedRows kept, long row, Map<String, Object> values, List<String> why)
            throws IOException {
        refused++;
        if (kept != null) {
            kept.add(row, values, why);
        }
        if (refused <= FAULTS_SHOWN) {
            tell(row, why);
        }
    }

    /** Whether nothing is wrong with a row but that it refers to what is not there. */
    private static boolean isWaiting(@Nullable Refusal problem) {
        var errors = problem == null ? List.<RecordCalls.Wrong>of() : problem.errors();
        boolean all = !errors.isEmpty();
        for (var error : errors) {
            all &= error.code().equals(NOT_THERE);
        }
        return all;
    }

    private static List<String> why(@Nullable Refusal problem) {
        if (problem == null) {
            return List.of("The service does not say why.");
        }
        var why = problem.errors().stream().map(RecordCalls.Wrong::message).toList();
        return why.isEmpty() ? List.of(problem.detail()) : why;
    }

    private void tell(long row, List<String> why) {
        var err = spec.commandLine().getErr();
        why.forEach(one -> err.printf("row %d: %s%n", row, one));
        err.flush();
    }
}
