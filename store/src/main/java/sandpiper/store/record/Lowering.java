package sandpiper.store.record;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import sandpiper.logic.Span;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Operand;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.value.RecordValue;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.UuidType;
import sandpiper.store.table.Tables;

/** Brings a condition down to columns and stored values. */
final class Lowering {
    private static final Map<String, String> OF_EVERY_RECORD =
            Map.of(
                    "createdAt", Tables.CREATED_AT,
                    "createdBy", Tables.CREATED_BY,
                    "changedAt", Tables.CHANGED_AT,
                    "changedBy", Tables.CHANGED_BY,
                    "retired", Tables.RETIRED);

    private final Release release;
    private final ObjectType object;

    Lowering(Release release, ObjectType object) {
        this.release = release;
        this.object = object;
    }

    /** A column with the decimal places of what is in it; 0 for all but numbers. */
    private record Target(ColumnRef column, int scale, boolean smallLetters) {}

    Predicate lower(Condition condition) {
        return switch (condition) {
            case Condition.All(var parts) ->
                    new Predicate.All(parts.stream().map(this::lower).toList());
            case Condition.Any(var parts) ->
                    new Predicate.Any(parts.stream().map(this::lower).toList());
            case Condition.Not(var inner) -> new Predicate.Not(lower(inner));
            case Condition.Unknown _ -> new Predicate.Unknown();
            case Condition.Empty(var field) -> new Predicate.Empty(target(field).column());
            case Condition.TextMatch(var field, var place, var text) ->
                    new Predicate.Match(target(field).column(), place, text);
            case Condition.Compare(var left, var operator, var right) ->
                    compare(target(left), operator, right);
        };
    }

    /** The column at the end of a path. */
    ColumnRef column(List<String> path) {
        return target(new Operand.Field(path, LogicType.Simple.ANY, new Span(0, 0))).column();
    }

    private Target target(Operand.Field operand) {
        var via = new ArrayList<Field>();
        var at = object;
        var path = operand.path();
        for (int i = 0; i < path.size(); i++) {
            var field = at.fields().find(path.get(i));
            if (field.isEmpty()) {
                return new Target(new ColumnRef(via, systemColumn(path.get(i))), 0, false);
            }
            if (i == path.size() - 1) {
                return new Target(
                        new ColumnRef(via, field.get().name()),
                        scaleOf(field.get().type()),
                        field.get().type() instanceof UuidType);
            }
            via.add(field.get());
            at = release.target((FieldType.Reference) field.get().type());
        }
        throw new IllegalArgumentException("A path needs a field");
    }

    private static String systemColumn(String name) {
        return java.util.Objects.requireNonNull(OF_EVERY_RECORD.get(name));
    }

    private static int scaleOf(FieldType type) {
        return switch (type) {
            case NumberType number -> number.scale();
            case MoneyType money -> money.scale();
            default -> 0;
        };
    }

    private Predicate compare(Target left, Operator operator, Operand right) {
        return switch (right) {
            case Operand.Field field -> columns(left, operator, target(field));
            case Operand.Value value -> value(left, operator, value.value());
        };
    }

    private static Predicate columns(Target left, Operator operator, Target right) {
        int scale = Math.max(left.scale(), right.scale());
        return new Predicate.CompareColumns(
                left.column(),
                power(scale - left.scale()),
                operator,
                right.column(),
                power(scale - right.scale()));
    }

    private static long power(int exponent) {
        return BigDecimal.TEN.pow(exponent).longValueExact();
    }

    private static Predicate value(Target left, Operator operator, Object value) {
        return switch (value) {
            case BigDecimal number -> number(left, operator, number);
            case String text ->
                    new Predicate.Compare(
                            left.column(),
                            operator,
                            left.smallLetters() ? text.toLowerCase(Locale.ROOT) : text);
            case Boolean flag -> new Predicate.Compare(left.column(), operator, flag ? 1L : 0L);
            case RecordValue record ->
                    new Predicate.Compare(left.column(), operator, record.number());
            case LocalDate date ->
                    new Predicate.Compare(left.column(), operator, date.toEpochDay());
            case LocalTime time ->
                    new Predicate.Compare(left.column(), operator, time.toNanoOfDay() / 1000);
            case Instant instant ->
                    new Predicate.Compare(left.column(), operator, TemporalType.micros(instant));
            case Duration duration ->
                    new Predicate.Compare(left.column(), operator, TemporalType.micros(duration));
            default -> throw new IllegalArgumentException("No column holds " + value);
        };
    }

    /**
     * A number with more decimal places than the column can have lies between two of its values.
     */
    private static Predicate number(Target left, Operator operator, BigDecimal number) {
        var scaled = number.movePointRight(left.scale());
        boolean exact = scaled.stripTrailingZeros().scale() <= 0;
        if (exact && fits(scaled)) {
            return new Predicate.Compare(left.column(), operator, scaled.longValueExact());
        }
        if (operator == Operator.EQUAL || operator == Operator.NOT_EQUAL) {
            return new Predicate.Always(operator == Operator.NOT_EQUAL);
        }
        var below = scaled.setScale(0, RoundingMode.FLOOR);
        long bound =
                fits(below)
                        ? below.longValueExact()
                        : below.signum() < 0 ? Long.MIN_VALUE : Long.MAX_VALUE;
        boolean upward = operator == Operator.GREATER || operator == Operator.GREATER_OR_EQUAL;
        return new Predicate.Compare(
                left.column(), upward ? Operator.GREATER : Operator.LESS_OR_EQUAL, bound);
    }

    private static boolean fits(BigDecimal number) {
        return number.abs().compareTo(BigDecimal.valueOf(Long.MAX_VALUE)) <= 0;
    }

    /** True when each word stands in at least one of the object's texts, whatever its case. */
    List<ColumnRef> searchable() {
        var columns = new ArrayList<ColumnRef>();
        for (var field : object.fields()) {
            if (field.type().stores() == FieldType.Storage.TEXT) {
                Tables.columns(field)
                        .forEach(column -> columns.add(new ColumnRef(List.of(), column)));
            } else if (field.type() instanceof FieldType.Reference reference) {
                release.target(reference).keyFields().stream()
                        .filter(key -> key.type().stores() == FieldType.Storage.TEXT)
                        .forEach(key -> columns.add(new ColumnRef(List.of(field), key.name())));
            }
        }
        return columns;
    }
}
