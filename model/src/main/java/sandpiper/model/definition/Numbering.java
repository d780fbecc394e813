package sandpiper.model.definition;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;

/**
 * How a record's number is made: {@code ST-{year}-{sequence:6}}.
 *
 * @param field the text field that gets it
 * @param parts what stands in the number, in order; exactly one is a sequence
 * @param written as in the definition
 * @param gapless whether no number may be left out, also where many write at a time; those who
 *     create then wait for each other
 */
public record Numbering(String field, List<Token> parts, String written, boolean gapless) {
    public Numbering {
        parts = List.copyOf(parts);
    }

    /** One stretch of a number. */
    public sealed interface Token {
        record Literal(String text) implements Token {}

        record Year() implements Token {}

        record Month() implements Token {}

        /** A count, with zeros in front up to a width. */
        record Sequence(int width) implements Token {}
    }

    /**
     * What one count is kept for: the number with the sequence left out. A new year so begins at 1.
     */
    public String series(LocalDate day) {
        return written(day, -1);
    }

    /** The number for a count on a day. */
    public String number(LocalDate day, long count) {
        return written(day, count);
    }

    private String written(LocalDate day, long count) {
        var text = new StringBuilder();
        for (var part : parts) {
            switch (part) {
                case Token.Literal literal -> text.append(literal.text());
                case Token.Year _ -> text.append(String.format(Locale.ROOT, "%04d", day.getYear()));
                case Token.Month _ ->
                        text.append(String.format(Locale.ROOT, "%02d", day.getMonthValue()));
                case Token.Sequence sequence ->
                        text.append(
                                count < 0
                                        ? "#"
                                        : String.format(
                                                Locale.ROOT, "%0" + sequence.width() + "d", count));
            }
        }
        return text.toString();
    }
}
