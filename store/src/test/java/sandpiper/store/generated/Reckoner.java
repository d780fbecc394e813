package sandpiper.store.generated;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.store.generated.Mirror.Row;
import sandpiper.store.generated.Model.FieldSpec;
import sandpiper.store.generated.Model.Kind;

/**
 * Works out formulas from scratch, the simplest way there is: every value by walking the
 * expression, every total by looking at every record. {@code null} is FEEL's null.
 */
final class Reckoner {
    private static final MathContext DIGITS = MathContext.DECIMAL128;
    private static final BigDecimal MOST = BigDecimal.TEN.pow(15);
    private static final int LONGEST_TEXT = 60;

    private final Mirror mirror;
    private final RoundingMode rounding;
    private final Map<Row, Map<String, Object>> known = new HashMap<>();
    private boolean impossible;

    private record Empty() {}

    Reckoner(Mirror mirror, RoundingMode rounding) {
        this.rounding = rounding;
        this.mirror = mirror;
    }

    /** Where an expression is worked out: the nearest row, and the one it is about. */
    private record At(Row near, Row root) {}

    /** The value of a field, stored or derived, as a formula reads it. */
    @Nullable Object value(Row row, FieldSpec field) {
        var formula = field.formula();
        if (formula == null) {
            return plain(field, row.value(field));
        }
        var ofRow = known.computeIfAbsent(row, _ -> new HashMap<>());
        var there = ofRow.get(field.name());
        if (there == null) {
            var value = stored(field, eval(formula, new At(row, row)));
            there = value == null ? new Empty() : value;
            ofRow.put(field.name(), there);
        }
        return there instanceof Empty ? null : there;
    }

    /** Whether some value that was worked out cannot be held by its field. */
    boolean isImpossible() {
        return impossible;
    }

    /** Works out all there is. */
    Reckoner everything() {
        for (var row : mirror.all()) {
            row.object().fields().forEach(field -> value(row, field));
            row.lines().forEach(line -> row.object().lines().forEach(field -> value(line, field)));
        }
        return this;
    }

    private static @Nullable Object plain(FieldSpec field, @Nullable Object value) {
        if (value == null) {
            return null;
        }
        return switch (field.kind()) {
            case INTEGER, DECIMAL, FINE, AMOUNT -> new BigDecimal(value.toString());
            case BOOLEAN -> (Boolean) value;
            case DATE -> LocalDate.parse(value.toString());
            case LOCALISED -> ((Map<?, ?>) value).get("en");
            default -> value;
        };
    }

    private @Nullable Object stored(FieldSpec field, @Nullable Object value) {
        return switch (value) {
            case null -> null;
            case BigDecimal number -> {
                var rounded = number.setScale(field.kind().scale(), rounding);
                if (rounded.unscaledValue().abs().compareTo(MOST.toBigInteger()) >= 0) {
                    impossible = true;
                }
                yield rounded;
            }
            case String text -> {
                impossible |= text.length() > LONGEST_TEXT;
                yield text;
            }
            default -> value;
        };
    }

    private @Nullable Object eval(Node node, At at) {
        return switch (node) {
            case Node.Number(var value) -> value;
            case Node.Words(var value) -> value;
            case Node.Day(var value) -> value;
            case Node.Path(var start, var references, var field) -> {
                var from = follow(start == Node.Start.THIS ? at.root() : at.near(), references);
                yield from == null ? null : value(holder(from, field), field);
            }
            case Node.Total total -> total(total, at);
            case Node.CountAll(var object, _) ->
                    BigDecimal.valueOf(
                            mirror.of(object).stream().filter(row -> !row.retired()).count());
            case Node.Calculation(var operator, var left, var right) ->
                    calculate(operator, eval(left, at), eval(right, at));
            case Node.Comparison(var operator, var left, var right) ->
                    compare(operator, eval(left, at), eval(right, at));
            case Node.IsEmpty(var value, var not) -> (eval(value, at) == null) != not;
            case Node.Both(var and, var left, var right) ->
                    both(and, (Boolean) eval(left, at), (Boolean) eval(right, at));
            case Node.Not(var value) -> {
                var flag = (Boolean) eval(value, at);
                yield flag == null ? null : !flag;
            }
            case Node.Choice(var condition, var then, var otherwise) ->
                    Boolean.TRUE.equals(eval(condition, at)) ? eval(then, at) : eval(otherwise, at);
            case Node.Joined(var left, var right) -> {
                var a = eval(left, at);
                var b = eval(right, at);
                yield a == null || b == null ? null : a.toString() + b;
            }
            case Node.Spelled(var number) -> {
                var value = (BigDecimal) eval(number, at);
                yield value == null
                        ? null
                        : value.signum() == 0 ? "0" : value.stripTrailingZeros().toPlainString();
            }
            case Node.Length(var words) -> {
                var text = eval(words, at);
                yield text == null ? null : BigDecimal.valueOf(text.toString().length());
            }
            case Node.Later(var date, var days) ->
                    eval(date, at) instanceof LocalDate day ? day.plusDays(days) : null;
        };
    }

    /** A line item reads fields of its record as well. */
    private static Row holder(Row row, FieldSpec field) {
        return row.owner() != null && !field.ofLine() ? Objects.requireNonNull(row.owner()) : row;
    }

    private @Nullable Row follow(Row from, List<FieldSpec> references) {
        var at = from;
        for (var reference : references) {
            var key = (String) holder(at, reference).value(reference);
            var next = key == null ? null : mirror.find(reference.to(), key);
            if (next == null) {
                return null;
            }
            at = next;
        }
        return at;
    }

    private List<Row> many(Node.Many many, At at) {
        var from =
                follow(many.start() == Node.Start.THIS ? at.root() : at.near(), many.references());
        if (from == null) {
            return List.of();
        }
        var rows = List.of(from);
        for (var by : many.back()) {
            rows = rows.stream().flatMap(row -> mirror.pointing(row, by).stream()).toList();
        }
        if (many.lines()) {
            rows = rows.stream().flatMap(row -> row.lines().stream()).toList();
        }
        var where = many.where();
        return where == null
                ? rows
                : rows.stream()
                        .filter(row -> Boolean.TRUE.equals(eval(where, new At(row, at.root()))))
                        .toList();
    }

    private @Nullable Object total(Node.Total total, At at) {
        var rows = many(total.many(), at);
        var field = total.field();
        if (field == null) {
            return BigDecimal.valueOf(rows.size());
        }
        var values = new ArrayList<Object>();
        for (var row : rows) {
            var holder = follow(row, total.references());
            var value = holder == null ? null : value(holder, field);
            if (value != null) {
                values.add(value);
            }
        }
        return switch (total.function()) {
            case "count" -> BigDecimal.valueOf(values.size());
            case "sum" -> sum(values);
            case "mean" ->
                    values.isEmpty()
                            ? null
                            : sum(values).divide(BigDecimal.valueOf(values.size()), DIGITS);
            default -> extreme(values, total.function().equals("max"));
        };
    }

    private static BigDecimal sum(List<Object> values) {
        return values.stream()
                .map(BigDecimal.class::cast)
                .reduce(BigDecimal.ZERO, (a, b) -> a.add(b, DIGITS));
    }

    @SuppressWarnings("unchecked")
    private static @Nullable Object extreme(List<Object> values, boolean most) {
        Object found = null;
        for (var value : values) {
            int order = found == null ? 1 : ((Comparable<Object>) value).compareTo(found);
            if (found == null || (most ? order > 0 : order < 0)) {
                found = value;
            }
        }
        return found;
    }

    private static @Nullable Object calculate(
            char operator, @Nullable Object left, @Nullable Object right) {
        if (!(left instanceof BigDecimal a) || !(right instanceof BigDecimal b)) {
            return null;
        }
        return switch (operator) {
            case '+' -> a.add(b, DIGITS);
            case '-' -> a.subtract(b, DIGITS);
            case '*' -> a.multiply(b, DIGITS);
            default -> b.signum() == 0 ? null : a.divide(b, DIGITS);
        };
    }

    @SuppressWarnings("unchecked")
    private static @Nullable Boolean compare(
            String operator, @Nullable Object left, @Nullable Object right) {
        if (left == null || right == null) {
            return switch (operator) {
                case "=" -> left == right;
                case "!=" -> left != right;
                default -> null;
            };
        }
        int order = ((Comparable<Object>) left).compareTo(right);
        return switch (operator) {
            case "=" -> order == 0;
            case "!=" -> order != 0;
            case "<" -> order < 0;
            case "<=" -> order <= 0;
            case ">" -> order > 0;
            default -> order >= 0;
        };
    }

    private static @Nullable Boolean both(
            boolean and, @Nullable Boolean left, @Nullable Boolean right) {
        // The value that decides alone: false of and, true of or.
        boolean deciding = !and;
        if ((left != null && left == deciding) || (right != null && right == deciding)) {
            return deciding;
        }
        return left == null || right == null ? null : !deciding;
    }

    /** Whether no check is broken. */
    boolean isInBounds(Row row) {
        var bounded = row.object().bounded();
        return bounded == null
                || !(value(row, bounded) instanceof BigDecimal number)
                || number.compareTo(BigDecimal.valueOf(Model.BOUND)) < 0;
    }

    /** A value as answers have it. */
    static @Nullable Object answered(FieldSpec field, @Nullable Object value) {
        return switch (value) {
            case null -> null;
            case BigDecimal number when field.kind() == Kind.INTEGER -> number.longValueExact();
            case LocalDate date -> date.toString();
            default -> value;
        };
    }
}
