package sandpiper.logic.syntax;

import java.math.BigDecimal;
import java.util.List;
import org.jspecify.annotations.Nullable;
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

    /** A name; {@code ?} stands for the value under test. */
    record Name(String text, Span span) implements Expr {}

    /** {@code source.member}; {@code memberSpan} covers the member's name alone. */
    record Path(Expr source, String member, Span memberSpan, Span span) implements Expr {}

    /**
     * One argument of a call.
     *
     * @param name of the parameter, or {@code null} when given by position
     */
    record Argument(@Nullable String name, Span nameSpan, Expr value) {}

    /** A call by name; the name may be of several words, one space between them. */
    record Call(String function, Span functionSpan, List<Argument> arguments, Span span)
            implements Expr {
        public Call {
            arguments = List.copyOf(arguments);
        }
    }

    /** A call of what an expression comes to. */
    record Invocation(Expr function, List<Argument> arguments, Span span) implements Expr {
        public Invocation {
            arguments = List.copyOf(arguments);
        }
    }

    /** A value with a minus before it. */
    record Negation(Expr operand, Span span) implements Expr {}

    record Arithmetic(Expr left, ArithmeticOperator operator, Expr right, Span span)
            implements Expr {}

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

    /** {@code < 5}: a test behind {@code in}, or in round brackets a range with one end. */
    record UnaryTest(Operator operator, Expr operand, Span span) implements Expr {}

    record ListLiteral(List<Expr> items, Span span) implements Expr {
        public ListLiteral {
            items = List.copyOf(items);
        }
    }

    /** {@code name: value} in a context. */
    record Entry(String name, Span nameSpan, Expr value) {}

    record ContextLiteral(List<Entry> entries, Span span) implements Expr {
        public ContextLiteral {
            entries = List.copyOf(entries);
        }
    }

    /** {@code source[condition]}: those items for which it holds, or the item at a place. */
    record Filter(Expr source, Expr condition, Span span) implements Expr {}

    record If(Expr condition, Expr then, Expr otherwise, Span span) implements Expr {}

    /**
     * {@code name in domain}, or {@code name in domain..end} for a run of whole numbers or days.
     */
    record Iterator(String name, Span nameSpan, Expr domain, @Nullable Expr end) {}

    record For(List<Iterator> iterators, Expr result, Span span) implements Expr {
        public For {
            iterators = List.copyOf(iterators);
        }
    }

    /** {@code some} or {@code every}. */
    record Quantified(boolean isEvery, List<Iterator> iterators, Expr condition, Span span)
            implements Expr {
        public Quantified {
            iterators = List.copyOf(iterators);
        }
    }

    record InstanceOf(Expr value, TypeName type, Span span) implements Expr {}

    /** A parameter of a function literal; {@code type} is {@code null} when none was written. */
    record Parameter(String name, @Nullable TypeName type, Span span) {}

    record FunctionLiteral(List<Parameter> parameters, Expr body, Span span) implements Expr {
        public FunctionLiteral {
            parameters = List.copyOf(parameters);
        }
    }

    /** One field to order by. */
    record Order(Expr by, boolean descending) {}

    /**
     * {@code find [first] Object [where ...] [order by ...] [take n]}: records from the store.
     *
     * @param first whether one record is wanted instead of a list
     * @param where {@code null} for all
     * @param take {@code null} for all
     */
    record Find(
            String object,
            Span objectSpan,
            boolean first,
            @Nullable Expr where,
            List<Order> orders,
            @Nullable Expr take,
            Span span)
            implements Expr {
        public Find {
            orders = List.copyOf(orders);
        }
    }

    /**
     * Stands where something could not be read; its problem is reported already and it starts no
     * further ones.
     */
    record Unreadable(Span span) implements Expr {}
}
