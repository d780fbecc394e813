package sandpiper.logic.condition;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.ArithmeticOperator;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.RecordType;

/** What a condition compares: something a store has or can work out for each record. */
public sealed interface Operand {
    LogicType type();

    /**
     * A field of the record, or of one it refers to: {@code [vessel, owner, name]}. Never empty.
     */
    record Field(List<String> path, LogicType type, Span span) implements Operand {
        public Field {
            path = List.copyOf(path);
        }

        /** As it is written: {@code vessel.owner.name}. */
        public String written() {
            return String.join(".", path);
        }
    }

    /**
     * A fixed value: {@link String}, {@link java.math.BigDecimal}, {@link Boolean}, {@link
     * java.time.LocalDate}, {@link java.time.LocalTime}, {@link java.time.Instant}, {@link
     * java.time.Duration}, or a {@link sandpiper.logic.value.RecordValue} for a reference. A
     * percent is as it is written: 19.
     */
    record Value(Object value, LogicType type) implements Operand {}

    /** No value. */
    record Nothing(LogicType type) implements Operand {}

    /**
     * A field that is not stored, by its formula.
     *
     * @param path to the field, for the type it gives to what the formula comes to
     */
    record Worked(List<String> path, Operand formula, LogicType type) implements Operand {
        public Worked {
            path = List.copyOf(path);
        }
    }

    /** True, false or nothing, as a condition is. */
    record Truth(Condition condition) implements Operand {
        @Override
        public LogicType type() {
            return LogicType.Simple.BOOLEAN;
        }
    }

    /** Plus, minus or times over numbers; the time between two days or two moments. */
    record Arithmetic(ArithmeticOperator operator, Operand left, Operand right, LogicType type)
            implements Operand {}

    /** A date some days later, or earlier when they are below 0. */
    record Later(Operand date, long days) implements Operand {
        @Override
        public LogicType type() {
            return LogicType.Simple.DATE;
        }
    }

    /**
     * The year, month or day of a date, the whole days of a duration, or what a stored field that
     * has several values has under a name.
     */
    record Piece(Operand of, String name, LogicType type) implements Operand {}

    /** A text in small or capital letters. */
    record Letters(Operand of, boolean capital) implements Operand {
        @Override
        public LogicType type() {
            return LogicType.Simple.TEXT;
        }
    }

    /** How many characters a text has. */
    record Length(Operand of) implements Operand {
        @Override
        public LogicType type() {
            return LogicType.Simple.NUMBER;
        }
    }

    /** One value when a condition holds, otherwise another. */
    record Choice(Condition when, Operand then, Operand otherwise, LogicType type)
            implements Operand {}

    /**
     * A total over records that belong to each one.
     *
     * @param records whose they are
     * @param link the references from each of them to the record they belong to; empty for all
     *     records there are
     * @param owner the references that lead from the record at hand to that one; empty for itself
     * @param condition what else must hold for them, or {@code null}
     */
    record Total(
            Selection.Total total,
            RecordType records,
            List<String> link,
            List<String> owner,
            @Nullable Condition condition)
            implements Operand {
        public Total {
            link = List.copyOf(link);
            owner = List.copyOf(owner);
        }

        @Override
        public LogicType type() {
            return total.value().isEmpty() ? LogicType.Simple.NUMBER : total.type();
        }
    }
}
