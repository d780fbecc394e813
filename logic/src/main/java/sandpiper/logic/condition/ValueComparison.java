package sandpiper.logic.condition;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.value.Amount;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Moment;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.TimeOfDay;
import sandpiper.logic.value.ValueText;

/**
 * Something stored compared with a value that is known: what the value is in the form in which a
 * store compares it, and what a reference is compared by.
 */
final class ValueComparison {
    private ValueComparison() {}

    /** Something compared with a value that is known by now. */
    static Condition of(Operand field, Operator operator, Object value, ZoneId zone) {
        if (value == Nothing.NULL) {
            return switch (operator) {
                case EQUAL -> new Condition.Empty(field);
                case NOT_EQUAL -> new Condition.Not(new Condition.Empty(field));
                default -> new Condition.Unknown();
            };
        }
        if (field.type() instanceof RecordOf(var record)) {
            if (value instanceof RecordValue) {
                return new Condition.Compare(
                        field, operator, new Operand.Value(value, field.type()));
            }
            if (!(field instanceof Operand.Field reference)) {
                return new Condition.Unknown();
            }
            return record.keyMember().isEmpty()
                    ? byWholeKey(reference, record, operator, value, zone)
                    : of(keyed(reference), operator, value, zone);
        }
        var stored = stored(field.type(), value, zone);
        return stored == null
                ? new Condition.Unknown()
                : new Condition.Compare(field, operator, new Operand.Value(stored, field.type()));
    }

    /** A reference compared with the key of several members that a text is. */
    private static Condition byWholeKey(
            Operand.Field reference,
            RecordType record,
            Operator operator,
            Object value,
            ZoneId zone) {
        if (!(value instanceof String text) || operator.ordersValues()) {
            return new Condition.Unknown();
        }
        var members = record.keyValues(text);
        if (!members.map(all -> isNamed(record, all.keySet())).orElse(true)) {
            return new Condition.Unknown();
        }
        // A text that is no such key is the key of none.
        var same =
                members.isEmpty()
                        ? new Condition.Any(List.of())
                        : new Condition.All(
                                members.get().entrySet().stream()
                                        .map(one ->
                                                of(
                                                        member(reference, record, one.getKey()),
                                                        Operator.EQUAL,
                                                        one.getValue(),
                                                        zone))
                                        .toList());
        return operator == Operator.EQUAL ? same : new Condition.Not(same);
    }

    /** Whether all of a key may be named by the one who asks. */
    private static boolean isNamed(RecordType record, Collection<String> members) {
        return members.stream().allMatch(name -> record.member(name).isPresent());
    }

    private static Operand.Field member(Operand.Field reference, RecordType record, String name) {
        var path = new ArrayList<>(reference.path());
        path.add(name);
        return new Operand.Field(path, record.member(name).orElseThrow().type(), reference.span());
    }

    /** The value as a store compares it, or {@code null} when no such field can hold it. */
    static @Nullable Object stored(LogicType type, Object value, ZoneId zone) {
        if (type.isNumeric()) {
            var number = value instanceof Amount amount ? amount.value() : value;
            return number instanceof Decimal decimal ? written(type, decimal) : null;
        }
        if (type.isTextual()) {
            return value instanceof String || value instanceof RecordValue
                    ? ValueText.of(value)
                    : null;
        }
        return switch (type) {
            case Simple simple ->
                    switch (simple) {
                        case BOOLEAN -> value instanceof Boolean ? value : null;
                        case DATE -> value instanceof LocalDate ? value : null;
                        case TIME -> value instanceof TimeOfDay time ? time.time() : null;
                        case DATE_TIME ->
                                switch (value) {
                                    case Moment moment -> moment.instant(zone);
                                    case LocalDate date -> Moment.of(date).instant(zone);
                                    default -> null;
                                };
                        case DURATION -> value instanceof Duration ? value : null;
                        default -> null;
                    };
            default -> null;
        };
    }

    private static BigDecimal written(LogicType type, Decimal value) {
        return type == Simple.PERCENT ? value.shifted(2).big() : value.big();
    }

    /** Whether values of both types can be compared as they are stored. */
    static boolean areAlike(LogicType a, LogicType b) {
        boolean units = (a == Simple.PERCENT) != (b == Simple.PERCENT);
        boolean records = a instanceof RecordOf != b instanceof RecordOf;
        boolean dates = !a.equals(b) && isDay(a) && isDay(b);
        boolean amounts =
                (a instanceof LogicType.AmountOf(var currency) && currency == null)
                        || (b instanceof LogicType.AmountOf(var other) && other == null);
        return !units && !records && !dates && !amounts;
    }

    private static boolean isDay(LogicType type) {
        return type == Simple.DATE || type == Simple.DATE_TIME;
    }

    /** A reference among texts stands for the key of the record it points to. */
    static Operand.Field keyed(Operand.Field field) {
        if (!(field.type() instanceof RecordOf(var record)) || record.keyMember().isEmpty()) {
            return field;
        }
        var key = record.keyMember().get();
        var path = new ArrayList<>(field.path());
        path.add(key);
        return new Operand.Field(path, record.member(key).orElseThrow().type(), field.span());
    }
}
