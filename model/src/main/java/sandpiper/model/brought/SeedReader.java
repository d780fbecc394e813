package sandpiper.model.brought;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.ProblemCode;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.Place;
import sandpiper.model.definition.SeedFile;
import sandpiper.model.release.Field;
import sandpiper.model.release.KeyText;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.TextType;

/**
 * Reads records that come with a package, from CSV (RFC 4180): fields in the first line, {@code
 * title.de} for each language of a localised one. That values are right is seen when they are
 * written.
 */
final class SeedReader {
    /** More would keep a release from being quick; such data is imported. */
    static final int MOST_ROWS = 5_000;

    private static final Pattern PATH = Pattern.compile("[^/]+/data/([^/]+)\\.csv");
    private static final CSVFormat CSV =
            CSVFormat.RFC4180.builder().setIgnoreEmptyLines(true).get();

    private final String path;
    private final String text;
    private final String packageName;
    private final Release release;
    private final List<Diagnostic> diagnostics;

    SeedReader(
            String path,
            String text,
            String packageName,
            Release release,
            List<Diagnostic> diagnostics) {
        this.path = path;
        this.text = text;
        this.packageName = packageName;
        this.release = release;
        this.diagnostics = diagnostics;
    }

    /** Whether a file is one of records that come with a package. */
    static boolean isSeed(String path) {
        return PATH.matcher(path).matches();
    }

    /** What stands in it, or nothing when it cannot be read. */
    Optional<SeedFile> read() {
        var name = PATH.matcher(path).replaceFirst("$1");
        var object = release.find(name);
        if (object.isEmpty()) {
            report(
                    1,
                    DefinitionCode.UNKNOWN_OBJECT,
                    "There is no object %s; the file is called as the object whose records it has."
                            .formatted(Quoted.of(name)),
                    Nearest.to(name, release.objects().stream().map(ObjectType::name).toList())
                            .orElse(null));
            return Optional.empty();
        }
        if (object.get().key().isEmpty()) {
            report(
                    1,
                    DefinitionCode.NO_KEY,
                    "%s has no key, by which a record of a package is known again.".formatted(name),
                    null);
            return Optional.empty();
        }
        try (var parser = CSVParser.parse(text, CSV)) {
            return read(object.get(), parser.getRecords());
        } catch (IOException | UncheckedIOException | IllegalStateException e) {
            report(
                    1,
                    DefinitionCode.WRONG_VALUE,
                    "This is no CSV: %s".formatted(e.getMessage()),
                    null);
            return Optional.empty();
        }
    }

    private Optional<SeedFile> read(ObjectType object, List<CSVRecord> lines) {
        if (lines.isEmpty()) {
            report(1, DefinitionCode.MISSING_KEY, "The first line has the names of fields.", null);
            return Optional.empty();
        }
        if (lines.size() - 1 > MOST_ROWS) {
            report(
                    1,
                    DefinitionCode.TOO_LARGE,
                    "A package brings at most %,d records of an object; import more than that."
                            .formatted(MOST_ROWS),
                    null);
            return Optional.empty();
        }
        var columns = lines.getFirst().toList().stream().map(SeedReader::plain).toList();
        boolean known = areColumns(object, columns);
        var rows = new ArrayList<SeedFile.Row>();
        var seen = new HashMap<String, Integer>();
        for (var line : lines.subList(1, lines.size())) {
            int number = lineOf(line);
            if (line.size() != columns.size()) {
                report(
                        number,
                        DefinitionCode.WRONG_VALUE,
                        "This row has %d values, and the first line %d names."
                                .formatted(line.size(), columns.size()),
                        null);
            } else if (known) {
                row(object, columns, line, number)
                        .ifPresent(row -> {
                            var before = seen.putIfAbsent(row.key(), row.line());
                            if (before != null) {
                                report(
                                        row.line(),
                                        DefinitionCode.DUPLICATE_KEY,
                                        "The key %s stands in line %d already."
                                                .formatted(Quoted.of(row.key()), before),
                                        null);
                            }
                            rows.add(row);
                        });
            }
        }
        return Optional.of(new SeedFile(path, packageName, object.name(), fields(columns), rows));
    }

    private static Set<String> fields(List<String> columns) {
        return columns.stream()
                .map(column -> column.replaceFirst("\\..*", ""))
                .collect(Collectors.toSet());
    }

    /** A spreadsheet may begin a file with a mark of its encoding. */
    private static String plain(String name) {
        return name.strip().replace("\uFEFF", "");
    }

    /** The line in which a row begins; its values may hold line breaks. */
    private int lineOf(CSVRecord row) {
        int end = (int) Math.min(row.getCharacterPosition(), text.length());
        return 1 + (int) text.substring(0, end).chars().filter(c -> c == '\n').count();
    }

    private boolean areColumns(ObjectType object, List<String> columns) {
        boolean right = true;
        var seen = new HashSet<String>();
        for (var column : columns) {
            var problem = problem(object, column, seen);
            if (problem != null) {
                report(
                        1,
                        DefinitionCode.UNKNOWN_FIELD,
                        problem,
                        Nearest.to(column, object.fields().names()).orElse(null));
                right = false;
            }
        }
        for (var key : object.key()) {
            if (!columns.contains(key)) {
                report(
                        1,
                        DefinitionCode.MISSING_KEY,
                        "The key of %s is %s; give it in a column of its own."
                                .formatted(object.name(), String.join(", ", object.key())),
                        null);
                right = false;
            }
        }
        return right;
    }

    private static @Nullable String problem(ObjectType object, String column, Set<String> seen) {
        if (!seen.add(column)) {
            return "The column %s is there twice.".formatted(Quoted.of(column));
        }
        int dot = column.indexOf('.');
        var name = dot < 0 ? column : column.substring(0, dot);
        var field = object.fields().find(name);
        if (field.isEmpty()) {
            return "%s has no field %s.".formatted(object.name(), Quoted.of(name));
        }
        if (field.get().isDerived()) {
            return "%s is worked out and is not given.".formatted(name);
        }
        if ((dot > 0) != isLocalised(field.get())) {
            return dot > 0
                    ? "%s has one text for all languages.".formatted(name)
                    : "%s has a text for each language: %s.en and so on.".formatted(name, name);
        }
        return null;
    }

    private static boolean isLocalised(Field field) {
        return field.type() instanceof TextType text && text.isLocalised();
    }

    private Optional<SeedFile.Row> row(
            ObjectType object, List<String> columns, CSVRecord line, int number) {
        var values = new LinkedHashMap<String, Object>();
        var texts = new LinkedHashMap<String, Map<String, String>>();
        for (int i = 0; i < columns.size(); i++) {
            var value = line.get(i);
            var column = columns.get(i);
            int dot = column.indexOf('.');
            if (value.isEmpty()) {
                continue;
            }
            if (dot < 0) {
                values.put(column, value);
            } else {
                texts.computeIfAbsent(column.substring(0, dot), _ -> new LinkedHashMap<>())
                        .put(column.substring(dot + 1), value);
            }
        }
        values.putAll(texts);
        var key = object.key().stream().map(values::get).toList();
        if (key.contains(null)) {
            report(number, DefinitionCode.MISSING_KEY, "This row has no key.", null);
            return Optional.empty();
        }
        return Optional.of(
                new SeedFile.Row(
                        number, KeyText.join(key.stream().map(String::valueOf).toList()), values));
    }

    private void report(int line, ProblemCode code, String message, @Nullable String suggestion) {
        diagnostics.add(
                Diagnostic.error(path, new Place(line, 1, line, 1), code, message, suggestion));
    }
}
