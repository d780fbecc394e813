package sandpiper.logic.function;

import static sandpiper.logic.function.FunctionParameter.taking;

import java.math.BigDecimal;
import java.math.MathContext;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.ListOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Amount;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Months;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.Values;

/** What brings a list down to one value, DMN 1.5 §10.3.4.4; each takes a list or the values. */
final class AggregateFunctions {
    private static final String CHAPTER = "Totals";

    static final List<Builtin> ALL =
            List.of(
                    Builtin.of("count", CHAPTER, "How many items a list has.")
                            .form(
                                    Simple.NUMBER,
                                    arguments -> Decimal.of(arguments.list(0).size()),
                                    taking("list", ParameterKind.LIST))
                            .example("count([1, 2, 3])", "3")
                            .example("count([])", "0"),
                    listOrValues(
                                    "min",
                                    "The lowest value.",
                                    AggregateFunctions::itemType,
                                    (items, arguments) -> extreme(items, -1, arguments))
                            .example("min([3, 1, 2])", "1")
                            .example("min(\"b\", \"a\")", "\"a\""),
                    listOrValues(
                                    "max",
                                    "The highest value.",
                                    AggregateFunctions::itemType,
                                    (items, arguments) -> extreme(items, 1, arguments))
                            .example("max(@\"2026-05-01\", @\"2026-06-01\")", "2026-06-01"),
                    listOrValues(
                                    "sum",
                                    "The sum of numbers, amounts or durations; null for an empty"
                                            + " list.",
                                    AggregateFunctions::itemType,
                                    AggregateFunctions::sum)
                            .example("sum([1, 2, 3])", "6")
                            .example("sum(@\"PT1H\", @\"PT30M\")", "PT1H30M"),
                    listOrValues(
                                    "mean",
                                    "The sum divided by the count.",
                                    AggregateFunctions::itemType,
                                    AggregateFunctions::mean)
                            .example("mean([1, 2, 3, 4])", "2.5"),
                    listOrValues(
                                    "product",
                                    "All numbers multiplied.",
                                    _ -> Simple.NUMBER,
                                    AggregateFunctions::product)
                            .example("product(2, 3, 4)", "24"),
                    listOrValues(
                                    "median",
                                    "The value in the middle, or the mean of the two there.",
                                    AggregateFunctions::itemType,
                                    AggregateFunctions::median)
                            .example("median(8, 2, 5, 3, 4)", "4"),
                    listOrValues(
                                    "stddev",
                                    "The standard deviation of a sample.",
                                    _ -> Simple.NUMBER,
                                    AggregateFunctions::deviation)
                            .example("decimal(stddev(2, 4, 7, 5), 4)", "2.0817"),
                    listOrValues(
                                    "mode",
                                    "The values that stand there most often, in their order.",
                                    _ -> new ListOf(Simple.NUMBER),
                                    AggregateFunctions::mode)
                            .example("mode([6, 3, 9, 6, 6])", "[6]"),
                    listOrValues(
                                    "all",
                                    "False when an item is false, true when all are true.",
                                    _ -> Simple.BOOLEAN,
                                    (items, arguments) -> truth(items, arguments, false))
                            .example("all([true, false])", "false"),
                    listOrValues(
                                    "any",
                                    "True when an item is true, false when all are false.",
                                    _ -> Simple.BOOLEAN,
                                    (items, arguments) -> truth(items, arguments, true))
                            .example("any(false, true)", "true"));

    private AggregateFunctions() {}

    private interface Aggregate {
        Object of(List<Object> items, CallArguments arguments);
    }

    private static Builtin listOrValues(
            String name,
            String describe,
            java.util.function.Function<List<LogicType>, LogicType> type,
            Aggregate aggregate) {
        return Builtin.of(name, CHAPTER, describe)
                .form(
                        type,
                        arguments -> run(aggregate, arguments.list(0), arguments),
                        taking("list", ParameterKind.LIST))
                .form(
                        type,
                        arguments -> run(aggregate, arguments.list(0), arguments),
                        taking("value", ParameterKind.ANY).andMore());
    }

    private static Object run(Aggregate aggregate, List<Object> items, CallArguments arguments) {
        arguments.run().spend(items.size());
        return aggregate.of(items, arguments);
    }

    private static LogicType itemType(List<LogicType> arguments) {
        return arguments.stream()
                .map(LogicType::itemType)
                .reduce(LogicType::common)
                .orElse(Simple.ANY);
    }

    private static Object extreme(List<Object> items, int sign, CallArguments arguments) {
        Object best = Nothing.NULL;
        for (var item : items) {
            var order = best == Nothing.NULL ? Values.order(item, item) : Values.order(item, best);
            if (order == null) {
                return arguments.fail("These values have no order between them.");
            }
            if (best == Nothing.NULL || Integer.signum(order) == sign) {
                best = item;
            }
        }
        return best;
    }

    private static Object sum(List<Object> items, CallArguments arguments) {
        Object sum = Nothing.NULL;
        for (var item : items) {
            sum = sum == Nothing.NULL ? first(item) : plus(sum, item);
            if (sum == Nothing.NULL) {
                return arguments.fail(
                        "sum: every item must be a number, or every item a duration.");
            }
        }
        return sum;
    }

    private static Object first(Object item) {
        return item instanceof Decimal
                        || item instanceof Duration
                        || item instanceof Months
                        || item instanceof Amount
                ? item
                : Nothing.NULL;
    }

    private static Object plus(Object a, Object b) {
        try {
            return switch (a) {
                case Decimal x when b instanceof Decimal y -> x.plus(y);
                case Duration x when b instanceof Duration y -> x.plus(y);
                case Months x when b instanceof Months y ->
                        new Months(Math.addExact(x.count(), y.count()));
                case Amount x when b instanceof Amount y && x.currency().equals(y.currency()) ->
                        x.value().plus(y.value()) instanceof Decimal sum
                                ? new Amount(sum, x.currency())
                                : Nothing.NULL;
                default -> Nothing.NULL;
            };
        } catch (ArithmeticException _) {
            return Nothing.NULL;
        }
    }

    private static Object mean(List<Object> items, CallArguments arguments) {
        return switch (sum(items, arguments)) {
            case Decimal sum -> sum.dividedBy(Decimal.of(items.size()));
            case Amount sum ->
                    sum.value().dividedBy(Decimal.of(items.size())) instanceof Decimal mean
                            ? new Amount(mean, sum.currency())
                            : Nothing.NULL;
            case Duration sum -> sum.dividedBy(items.size());
            case Months sum -> new Months(sum.count() / items.size());
            default -> Nothing.NULL;
        };
    }

    private static @Nullable List<Decimal> numbers(List<Object> items, CallArguments arguments) {
        var numbers = new ArrayList<Decimal>(items.size());
        for (var item : items) {
            if (!(item instanceof Decimal number)) {
                arguments.run().note("Every item must be a number.");
                return null;
            }
            numbers.add(number);
        }
        return numbers;
    }

    private static Object product(List<Object> items, CallArguments arguments) {
        var numbers = numbers(items, arguments);
        if (numbers == null || numbers.isEmpty()) {
            return Nothing.NULL;
        }
        Object product = numbers.getFirst();
        for (int i = 1; i < numbers.size() && product instanceof Decimal sofar; i++) {
            product = sofar.times(numbers.get(i));
        }
        return product;
    }

    private static Object median(List<Object> items, CallArguments arguments) {
        var numbers = numbers(items, arguments);
        if (numbers == null || numbers.isEmpty()) {
            return Nothing.NULL;
        }
        numbers.sort(null);
        int middle = numbers.size() / 2;
        if (numbers.size() % 2 == 1) {
            return numbers.get(middle);
        }
        return numbers.get(middle - 1).plus(numbers.get(middle)) instanceof Decimal sum
                ? sum.dividedBy(Decimal.of(2))
                : Nothing.NULL;
    }

    private static Object deviation(List<Object> items, CallArguments arguments) {
        var numbers = numbers(items, arguments);
        if (numbers == null || numbers.size() < 2) {
            return Nothing.NULL;
        }
        var count = BigDecimal.valueOf(numbers.size());
        var exact = MathContext.DECIMAL128;
        var mean =
                numbers.stream()
                        .map(Decimal::big)
                        .reduce(BigDecimal.ZERO, (a, b) -> a.add(b, exact))
                        .divide(count, exact);
        var squares =
                numbers.stream()
                        .map(number -> number.big().subtract(mean, exact).pow(2, exact))
                        .reduce(BigDecimal.ZERO, (a, b) -> a.add(b, exact));
        var made = Decimal.tryOf(squares.divide(count.subtract(BigDecimal.ONE), exact).sqrt(exact));
        return made == null ? Nothing.NULL : made;
    }

    private static Object mode(List<Object> items, CallArguments arguments) {
        var numbers = numbers(items, arguments);
        if (numbers == null) {
            return Nothing.NULL;
        }
        var counts = new java.util.TreeMap<Decimal, Integer>();
        numbers.forEach(number -> counts.merge(number, 1, Integer::sum));
        int most = counts.values().stream().max(Integer::compare).orElse(0);
        var modes = new ArrayList<Object>();
        counts.forEach((number, count) -> {
            if (count == most) {
                modes.add(number);
            }
        });
        return modes;
    }

    private static Object truth(List<Object> items, CallArguments arguments, boolean decisive) {
        boolean unknown = false;
        for (var item : items) {
            if (item instanceof Boolean flag) {
                if (flag == decisive) {
                    return decisive;
                }
            } else {
                unknown = true;
            }
        }
        return unknown ? arguments.fail("An item is neither true nor false.") : (Object) !decisive;
    }
}
