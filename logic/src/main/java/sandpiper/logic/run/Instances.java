package sandpiper.logic.run;

import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
import sandpiper.logic.type.LogicType;
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
import sandpiper.logic.value.Values;

/** {@code instance of}, DMN 1.5 §10.3.2.9.1. */
final class Instances {
    private Instances() {}

    /**
     * A value as something of a type takes it, DMN 1.5 §10.3.2.9.4: a list of one stands for its
     * item, an item for a list of one, a date for its midnight in UTC; what does not fit is null.
     */
    static Object conform(Object value, LogicType wanted, Evaluation run) {
        if (value == Nothing.NULL || wanted == LogicType.Simple.ANY || isOf(value, wanted)) {
            return value;
        }
        if (value instanceof List<?> list && list.size() == 1 && isOf(list.getFirst(), wanted)) {
            return list.getFirst();
        }
        if (wanted instanceof LogicType.ListOf(var item) && isOf(value, item)) {
            return List.of(value);
        }
        if (wanted == LogicType.Simple.DATE_TIME && value instanceof LocalDate date) {
            return Moment.of(date);
        }
        run.note(
                "A parameter takes %s, but was given %s."
                        .formatted(wanted.described(), Values.kind(value)));
        return Nothing.NULL;
    }

    static boolean isOf(Object value, LogicType asked) {
        return switch (asked) {
            case LogicType.Simple simple -> isOf(value, simple);
            case LogicType.ListOf(var item) ->
                    value instanceof List<?> list && list.stream().allMatch(one -> isOf(one, item));
            case LogicType.RangeOf(var of) ->
                    value instanceof Range range
                            && (range.start() == Nothing.NULL || isOf(range.start(), of))
                            && (range.end() == Nothing.NULL || isOf(range.end(), of));
            case LogicType.ContextOf(var entries) ->
                    value instanceof Context context
                            && (entries == null
                                    || entries.entrySet().stream()
                                            .allMatch(entry ->
                                                    context.find(entry.getKey()) != null
                                                            && isOf(
                                                                    context.get(entry.getKey()),
                                                                    entry.getValue())));
            case LogicType.FunctionOf(var parameters, _, _) ->
                    value instanceof FunctionValue function
                            && (parameters == null
                                    || function.parameters().size() == parameters.size());
            case LogicType.RecordOf(var record) ->
                    value instanceof RecordValue one && one.object().equals(record.name());
            case LogicType.AmountOf _ -> value instanceof Decimal || value instanceof Amount;
            case LogicType.ChoiceOf(var codes) ->
                    value instanceof String code && codes.contains(code);
        };
    }

    private static boolean isOf(Object value, LogicType.Simple asked) {
        return switch (asked) {
            case ANY -> value != Nothing.NULL;
            case NOTHING -> value == Nothing.NULL;
            case TEXT -> value instanceof String;
            case NUMBER, PERCENT -> value instanceof Decimal;
            case BOOLEAN -> value instanceof Boolean;
            case DATE -> value instanceof LocalDate;
            case TIME -> value instanceof TimeOfDay;
            case DATE_TIME -> value instanceof Moment;
            case DURATION -> value instanceof Duration;
            case MONTHS -> value instanceof Months;
        };
    }
}
