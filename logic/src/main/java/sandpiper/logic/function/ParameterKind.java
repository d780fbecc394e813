package sandpiper.logic.function;

import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Amount;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.FunctionValue;
import sandpiper.logic.value.Moment;
import sandpiper.logic.value.Months;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.Range;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.TimeOfDay;

/** What a parameter takes. */
public enum ParameterKind {
    ANY("any value"),
    NUMBER("a number"),
    TEXT("text"),
    BOOLEAN("true or false"),
    DATE("a date"),
    MOMENT("a date and time"),
    TIME("a time"),
    DAY("a date, or a date and time"),
    DURATION("a duration"),
    ANY_DURATION("a duration"),
    TEXT_OR_TEMPORAL("text, a date, or a date and time"),
    LIST("a list"),
    CONTEXT("a context"),
    FUNCTION("a function"),
    RANGE("a range"),
    POINT_OR_RANGE("a value that has an order, or a range");

    private final String described;

    ParameterKind(String described) {
        this.described = described;
    }

    /** With its article, for messages. */
    public String described() {
        return described;
    }

    /**
     * The value as the function takes it, or {@code null} when it takes no such value. A list of
     * one stands for its item and an item for a list of one (DMN 1.5 §10.3.2.9.4); a date stands
     * for its midnight in UTC.
     */
    @Nullable Object take(Object value) {
        if (matches(value)) {
            return this == NUMBER && value instanceof Amount amount ? amount.value() : value;
        }
        if (this == LIST) {
            return List.of(value);
        }
        if (this == MOMENT && value instanceof LocalDate date) {
            return Moment.of(date);
        }
        if (this == TEXT && value instanceof RecordValue record) {
            return record.written();
        }
        if (value instanceof List<?> list && list.size() == 1) {
            var only = list.getFirst();
            return only instanceof List ? null : take(only);
        }
        return null;
    }

    private boolean matches(Object value) {
        return switch (this) {
            case ANY -> true;
            case NUMBER -> value instanceof Decimal || value instanceof Amount;
            case TEXT -> value instanceof String;
            case BOOLEAN -> value instanceof Boolean;
            case DATE -> value instanceof LocalDate;
            case MOMENT -> value instanceof Moment;
            case TIME -> value instanceof TimeOfDay;
            case DAY -> value instanceof LocalDate || value instanceof Moment;
            case DURATION -> value instanceof Duration;
            case ANY_DURATION -> value instanceof Duration || value instanceof Months;
            case TEXT_OR_TEMPORAL ->
                    value instanceof String
                            || value instanceof LocalDate
                            || value instanceof TimeOfDay
                            || value instanceof Moment;
            case LIST -> value instanceof List;
            case CONTEXT -> value instanceof Context;
            case FUNCTION -> value instanceof FunctionValue;
            case RANGE -> value instanceof Range;
            case POINT_OR_RANGE -> value != Nothing.NULL && !(value instanceof List);
        };
    }

    /** Whether values of a type may be taken; what cannot be known may. */
    public boolean accepts(LogicType type) {
        if (type.isOpen() || this == ANY || this == LIST) {
            return true;
        }
        if (type instanceof LogicType.ListOf(var item)) {
            // A list of one stands for its item, but nobody knows that of line items beforehand.
            return !(item instanceof LogicType.RecordOf) && accepts(item);
        }
        return switch (this) {
            case NUMBER -> type.isNumeric();
            case TEXT -> type.isTextual() || type instanceof LogicType.RecordOf;
            case BOOLEAN -> type == Simple.BOOLEAN;
            case DATE -> type == Simple.DATE;
            case MOMENT, DAY -> type == Simple.DATE || type == Simple.DATE_TIME;
            case TIME -> type == Simple.TIME;
            case DURATION -> type == Simple.DURATION;
            case ANY_DURATION -> type == Simple.DURATION || type == Simple.MONTHS;
            case TEXT_OR_TEMPORAL ->
                    type.isTextual()
                            || type == Simple.DATE
                            || type == Simple.TIME
                            || type == Simple.DATE_TIME;
            case CONTEXT -> type instanceof LogicType.ContextOf;
            case FUNCTION -> type instanceof LogicType.FunctionOf;
            case RANGE -> type instanceof LogicType.RangeOf;
            case POINT_OR_RANGE -> type instanceof LogicType.RangeOf || type.isOrdered();
            case ANY, LIST -> true;
        };
    }
}
