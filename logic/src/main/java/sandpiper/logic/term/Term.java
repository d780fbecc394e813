package sandpiper.logic.term;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Span;
import sandpiper.logic.function.Builtin;
import sandpiper.logic.syntax.ArithmeticOperator;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;

/** A node of the typed tree. Immutable. */
public sealed interface Term {
    LogicType type();

    Span span();

    /** A fixed value; {@code literal} when it stands in the text just so. */
    record Constant(Object value, LogicType type, boolean literal, Span span) implements Term {}

    /** A name with a place of its own in the frame: a parameter, an item, a step's {@code let}. */
    record Local(int slot, String name, LogicType type, Span span) implements Term {}

    /**
     * A name that an item may have when the expression runs; if no item does, {@code otherwise}.
     *
     * @param items innermost first
     */
    record Lookup(String name, List<Local> items, Term otherwise, LogicType type, Span span)
            implements Term {}

    /** A member of a record. */
    record Read(Term source, Member member, Span span) implements Term {
        @Override
        public LogicType type() {
            return member.type();
        }
    }

    /** A property of a context, a date, a range; of each item when the source is a list. */
    record Property(Term source, String name, LogicType type, Span span) implements Term {}

    /** Something of each record of a list; lists of lists come as one. */
    record Project(Term source, Local item, Term value, LogicType type, Span span)
            implements Term {}

    /** All records of an object that are in use. */
    record Records(RecordType record, Span span) implements Term {
        @Override
        public LogicType type() {
            return new LogicType.ListOf(new LogicType.RecordOf(record));
        }
    }

    record Negate(Term operand, LogicType type, Span span) implements Term {}

    record Arithmetic(ArithmeticOperator operator, Term left, Term right, LogicType type, Span span)
            implements Term {}

    record Compare(Operator operator, Term left, Term right, Span span) implements Term {
        @Override
        public LogicType type() {
            return Simple.BOOLEAN;
        }
    }

    /** {@code and} or {@code or}. */
    record Logical(boolean isAnd, List<Term> parts, Span span) implements Term {
        @Override
        public LogicType type() {
            return Simple.BOOLEAN;
        }
    }

    /** Puts a value into a place and asks whether one of the tests on it holds. */
    record Within(Term value, Local tested, List<Term> tests, Span span) implements Term {
        @Override
        public LogicType type() {
            return Simple.BOOLEAN;
        }
    }

    /** Whether a value is another, is in it when it is a list, or lies in it when it is a range. */
    record Matches(Term value, Term test, Span span) implements Term {
        @Override
        public LogicType type() {
            return Simple.BOOLEAN;
        }
    }

    /** Whether two values differ; empty and empty do not. Always true or false. */
    record Differs(Term left, Term right, Span span) implements Term {
        @Override
        public LogicType type() {
            return Simple.BOOLEAN;
        }
    }

    record If(Term condition, Term then, Term otherwise, LogicType type, Span span)
            implements Term {}

    /** What a loop runs over: the items of a list, or from a value to {@code end}. */
    record Source(Local item, Term domain, @Nullable Term end) {}

    record For(List<Source> sources, Local partial, Term result, LogicType type, Span span)
            implements Term {}

    record Quantified(boolean isEvery, List<Source> sources, Term condition, Span span)
            implements Term {
        @Override
        public LogicType type() {
            return Simple.BOOLEAN;
        }
    }

    /** Items for which a condition holds, or the one at a place when it comes to a number. */
    record Filter(Term source, Local item, Term condition, LogicType type, Span span)
            implements Term {}

    record ListOf(List<Term> items, LogicType type, Span span) implements Term {}

    /** Entries in order, each with its own place so that later ones can use it. */
    record ContextOf(List<Entry> entries, LogicType type, Span span) implements Term {}

    record Entry(String name, Local local, Term value) {}

    /** A {@code null} end is open. */
    record RangeOf(
            @Nullable Term start,
            boolean startIncluded,
            @Nullable Term end,
            boolean endIncluded,
            LogicType type,
            Span span)
            implements Term {}

    record Call(Builtin function, List<Term> arguments, LogicType type, Span span)
            implements Term {}

    /**
     * A total over something of records. Unlike the function of the same name it leaves out what is
     * empty, and the sum of nothing is zero, as in any database and on any form.
     */
    record Aggregate(Builtin function, Term list, LogicType type, Span span) implements Term {}

    /** Calls what a term comes to; {@code names} is {@code null} when by position. */
    record Invoke(
            Term function,
            List<Term> arguments,
            @Nullable List<String> names,
            LogicType type,
            Span span)
            implements Term {}

    /**
     * A function written where it is used.
     *
     * @param declared the types written behind its parameters; {@link Simple#ANY} for none
     */
    record FunctionOf(
            List<Local> parameters, List<LogicType> declared, Term body, LogicType type, Span span)
            implements Term {}

    /** A built-in function as a value, to be handed on or called by another name. */
    record BuiltinValue(Builtin function, LogicType type, Span span) implements Term {}

    record InstanceOf(Term value, LogicType asked, Span span) implements Term {
        @Override
        public LogicType type() {
            return Simple.BOOLEAN;
        }
    }

    /** Records from the store, in an order. */
    record Find(
            Records records,
            Local item,
            boolean first,
            @Nullable Term where,
            List<Order> orders,
            @Nullable Term take,
            LogicType type,
            Span span)
            implements Term {}

    record Order(Term by, boolean descending) {}

    /** The inner value as text for a message, its parts one behind the other. */
    record Template(List<Term> parts, Span span) implements Term {
        @Override
        public LogicType type() {
            return Simple.TEXT;
        }
    }
}
