package sandpiper.server.outside;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.outside.Reply;
import sandpiper.engine.outside.Reply.Entry;
import sandpiper.model.connection.LookupType;

/** Finds what is wanted in what a service outside answered. */
final class AnswerReading {
    /** Entries of one list that are looked at. */
    private static final int MOST_ENTRIES = 20_000;

    /** Characters of a label; the rest is cut. */
    private static final int LONGEST_LABEL = 500;

    private AnswerReading() {}

    /** An answer that is not what it should be. */
    static final class WrongShapeException extends RuntimeException {
        private static final long serialVersionUID = 1L;

        WrongShapeException(String message) {
            super(message);
        }
    }

    /** What stands where steps lead; {@code null} where nothing does. */
    static @Nullable Object at(@Nullable Object answer, List<String> steps) {
        var at = answer;
        for (var step : steps) {
            if (at == null) {
                return null;
            }
            if (!(at instanceof Map<?, ?> map)) {
                throw new WrongShapeException("it has no %s where that should be".formatted(step));
            }
            at = map.get(step);
        }
        return at;
    }

    /** The entries of a lookup. */
    static List<Entry> entries(LookupType lookup, @Nullable Object answer) {
        if (!(at(answer, lookup.items()) instanceof List<?> list)) {
            throw new WrongShapeException(
                    lookup.items().isEmpty()
                            ? "it is not a list"
                            : "%s is not a list".formatted(String.join(".", lookup.items())));
        }
        if (list.size() > MOST_ENTRIES) {
            throw new WrongShapeException("it has more than %,d entries".formatted(MOST_ENTRIES));
        }
        var entries = new ArrayList<Entry>();
        for (var one : list) {
            entries.add(entry(lookup, one));
        }
        return entries;
    }

    /** One entry of a lookup. */
    static Entry entry(LookupType lookup, @Nullable Object answer) {
        var code = text(at(answer, lookup.key()), lookup.key());
        var label = at(answer, lookup.label());
        var written = label == null ? code : text(label, lookup.label());
        return new Entry(
                code,
                written.length() > LONGEST_LABEL ? written.substring(0, LONGEST_LABEL) : written);
    }

    private static String text(@Nullable Object value, List<String> steps) {
        return switch (value) {
            case String text -> text;
            case Number number -> number.toString();
            case null, default ->
                    throw new WrongShapeException(
                            "%s is not a text".formatted(String.join(".", steps)));
        };
    }

    /** An answer of what is wanted, or a failure that says what is wrong. */
    static Reply reply(String label, java.util.function.Supplier<@Nullable Object> reading) {
        try {
            return new Reply.Answer(reading.get());
        } catch (WrongShapeException e) {
            return new Reply.Failure(
                    "%s answered something else than its contract says: %s."
                            .formatted(label, e.getMessage()),
                    false);
        }
    }
}
