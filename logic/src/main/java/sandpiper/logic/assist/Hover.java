package sandpiper.logic.assist;

import java.util.Optional;
import sandpiper.logic.Span;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.function.Builtin;
import sandpiper.logic.function.Builtins;
import sandpiper.logic.term.Term;

/**
 * What a name in a text means.
 *
 * @param title the name with its type, or how a function is called
 * @param describe a sentence about it; may be empty
 * @param example an expression with its result, or empty
 */
public record Hover(Span span, String title, String describe, String example) {

    /** What stands at a place, in code points from 0; nothing when there is nothing to say. */
    public static Optional<Hover> at(TextKind kind, String text, int place, NameContext setting) {
        var analysis = Analysis.of(kind, text, setting);
        var named =
                analysis.meanings().entrySet().stream()
                        .filter(entry ->
                                entry.getKey().start() <= place && place < entry.getKey().end())
                        .min(
                                java.util.Comparator.comparingInt(
                                        entry -> entry.getKey().end() - entry.getKey().start()));
        return named.map(entry -> of(entry.getKey(), entry.getValue()))
                .or(() -> function(text, place));
    }

    private static Hover of(Span span, Term term) {
        return switch (term) {
            case Term.Read read ->
                    new Hover(
                            span,
                            read.member().name() + ": " + read.type().described(),
                            read.member().describe(),
                            "");
            case Term.Local local ->
                    new Hover(span, local.name() + ": " + local.type().described(), "", "");
            case Term.Records records ->
                    new Hover(
                            span,
                            records.record().name() + ": " + records.type().described(),
                            "All records of the object that are in use.",
                            "");
            default -> new Hover(span, term.type().described(), "", "");
        };
    }

    private static Optional<Hover> function(String text, int place) {
        int[] all = text.codePoints().toArray();
        Builtin best = null;
        int bestStart = 0;
        for (var function : Builtins.all()) {
            int length = function.name().length();
            for (int start = Math.max(0, place - length + 1);
                    start <= place && start + length <= all.length;
                    start++) {
                boolean whole =
                        new String(all, start, length).equals(function.name())
                                && (start == 0 || !Character.isLetterOrDigit(all[start - 1]))
                                && opensCall(all, start + length);
                if (whole && (best == null || length > best.name().length())) {
                    best = function;
                    bestStart = start;
                }
            }
        }
        if (best == null) {
            return Optional.empty();
        }
        var example =
                best.examples().isEmpty()
                        ? ""
                        : best.examples().getFirst().expression()
                                + " = "
                                + best.examples().getFirst().result();
        return Optional.of(
                new Hover(
                        new Span(bestStart, bestStart + best.name().length()),
                        String.join("\n", best.written()),
                        best.describe(),
                        example));
    }

    private static boolean opensCall(int[] text, int at) {
        int i = at;
        while (i < text.length && Character.isWhitespace(text[i])) {
            i++;
        }
        return i < text.length && text[i] == '(';
    }
}
