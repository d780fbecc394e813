package sandpiper.logic.check;

import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
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
import sandpiper.logic.value.TimeOfDay;

/** Tells the type of a value. */
final class ValueTypes {
    private ValueTypes() {}

    static LogicType of(Object value) {
        return switch (value) {
            case Nothing _ -> Simple.NOTHING;
            case Decimal _ -> Simple.NUMBER;
            case String _ -> Simple.TEXT;
            case Boolean _ -> Simple.BOOLEAN;
            case LocalDate _ -> Simple.DATE;
            case TimeOfDay _ -> Simple.TIME;
            case Moment _ -> Simple.DATE_TIME;
            case Duration _ -> Simple.DURATION;
            case Months _ -> Simple.MONTHS;
            case Amount(_, var currency) -> new LogicType.AmountOf(currency);
            case List<?> _ -> new LogicType.ListOf(Simple.ANY);
            case Context _ -> new LogicType.ContextOf(null);
            case Range _ -> new LogicType.RangeOf(Simple.ANY);
            case FunctionValue _ -> new LogicType.FunctionOf(null, Simple.ANY);
            default -> Simple.ANY;
        };
    }
}
