package sandpiper.cli.records;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import tools.jackson.core.JacksonException;

/**
 * The rows of a file, read one after the other: CSV (RFC 4180, field names in the first line) or
 * JSON Lines.
 *
 * @param columns the names in the first line of a CSV file; empty for JSON Lines
 */
public record Rows(Iterator<Map<String, Object>> values, List<String> columns, AutoCloseable file)
        implements AutoCloseable {
    private static final CSVFormat CSV =
            CSVFormat.RFC4180
                    .builder()
                    .setHeader()
                    .setSkipHeaderRecord(true)
                    .setIgnoreEmptyLines(true)
                    .get();

    static Rows of(Path file, ObjectShape shape) throws IOException {
        var reader = Files.newBufferedReader(file);
        if (isJsonLines(file)) {
            return new Rows(jsonLines(reader), List.of(), reader);
        }
        CSVParser parser = CSV.parse(reader);
        return new Rows(
                records(parser.stream().map(Rows::row).iterator(), new RecordRows(shape)),
                parser.getHeaderNames(),
                parser);
    }

    /** Rows of one key that follow each other are one record. */
    private static Iterator<Map<String, Object>> records(
            Iterator<Map<String, Object>> rows, RecordRows shape) {
        return new Iterator<>() {
            private @Nullable Map<String, Object> next = rows.hasNext() ? rows.next() : null;

            @Override
            public boolean hasNext() {
                return next != null;
            }

            @Override
            public Map<String, Object> next() {
                var row = next;
                if (row == null) {
                    throw new NoSuchElementException();
                }
                var record = new LinkedHashMap<String, Object>();
                do {
                    shape.add(record, row);
                    row = rows.hasNext() ? rows.next() : null;
                } while (row != null && shape.goesOn(record, row));
                next = row;
                return record;
            }
        };
    }

    static boolean isJsonLines(Path file) {
        return file.toString().endsWith(".jsonl");
    }

    /** How many lines a file has, to know how far one is. */
    static long lines(Path file) throws IOException {
        try (Stream<String> all = Files.lines(file)) {
            return all.count();
        }
    }

    private static Map<String, Object> row(CSVRecord record) {
        var values = new LinkedHashMap<String, Object>();
        record.toMap()
                .forEach((name, value) -> {
                    if (!value.isEmpty() && !RefusedRows.isOurs(name)) {
                        values.put(name, value);
                    }
                });
        return values;
    }

    private static Iterator<Map<String, Object>> jsonLines(BufferedReader reader) {
        return reader.lines().filter(line -> !line.isBlank()).map(Rows::json).iterator();
    }

    private static Map<String, Object> json(String line) {
        try {
            var values = ManageClient.members(line);
            values.keySet().removeIf(RefusedRows::isOurs);
            return values;
        } catch (JacksonException e) {
            throw new RefusedException(
                    0,
                    "A line is no JSON object: %s.".formatted(e.getOriginalMessage()),
                    List.of());
        }
    }

    @Override
    public void close() throws IOException {
        try {
            file.close();
        } catch (IOException | RuntimeException e) {
            throw e;
        } catch (Exception e) {
            throw new IOException(e);
        }
    }
}
