package sandpiper.logic.syntax;

import java.math.BigDecimal;
import java.util.List;
import sandpiper.logic.Span;

/** A node of the syntax tree. Immutable; {@link #span()} is where it was read. */
public sealed interface Expr {
    Span span();

    record NumberLiteral(BigDecimal value, Span span) implements Expr {}

    record TextLiteral(String value, Span span) implements Expr {}

    record BooleanLiteral(boolean value, Span span) implements Expr {}

    record NullLiteral(Span span) implements Expr {}

    /**
     * {@code @"2026-05-01"}: a date, time, date and time or duration, told apart by its form (DMN
     * 1.5 §10.3.4).
     */
    record TemporalLiteral(String text, Span span) implements Expr {}

    record Name(String text, Span span) implements Expr {}

    /** {@code source.member}; {@code memberSpan} covers the member's name alone. */
    record Path(Expr source, String member, Span memberSpan, Span span) implements Expr {}

    /**
     * A call by position; {@code function} may be a name of several words, one space between them.
     */
    record Call(String function, Span functionSpan, List<Expr> arguments, Span span)
            implements Expr {
        public Call {
            arguments = List.copyOf(arguments);
        }
    }

    /** A number with a minus before it. */
    record Negation(Expr operand, Span span) implements Expr {}

    record Comparison(Expr left, Operator operator, Expr right, Span span) implements Expr {}

    /** {@code and} or {@code or} over two or more parts. */
    record Logical(boolean isAnd, List<Expr> parts, Span span) implements Expr {
        public Logical {
            parts = List.copyOf(parts);
        }
    }

    /** {@code value between low and high}; both ends belong to it. */
    record Between(Expr value, Expr low, Expr high, Span span) implements Expr {}

    /** {@code value in tests}: true when one of the tests holds. */
    record In(Expr value, List<Expr> tests, Span span) implements Expr {
        public In {
            tests = List.copyOf(tests);
        }
    }

    /** {@code [low..high]}; a round bracket leaves that end out. */
    record Range(Expr low, boolean lowIncluded, Expr high, boolean highIncluded, Span span)
            implements Expr {}

    /** {@code < 5} as a test behind {@code in}. */
    record UnaryTest(Operator operator, Expr operand, Span span) implements Expr {}

    record ListLiteral(List<Expr> items, Span span) implements Expr {
        public ListLiteral {
            items = List.copyOf(items);
        }
    }

    /**
     * Stands where something could not be read; its problem is reported already and it starts no
     * further ones.
     */
    record Unreadable(Span span) implements Expr {}
}
