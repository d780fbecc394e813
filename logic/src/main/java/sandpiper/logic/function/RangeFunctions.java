package sandpiper.logic.function;

import static sandpiper.logic.function.FunctionParameter.taking;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Quoted;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.Parser;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.Range;
import sandpiper.logic.value.TemporalText;
import sandpiper.logic.value.Values;

/**
 * How points and ranges lie to each other, DMN 1.5 §10.3.4.11. A point counts as the range that has
 * nothing else in it wherever the standard's table says so.
 */
final class RangeFunctions {
    private static final String CHAPTER = "Ranges";

    static final List<Builtin> ALL =
            List.of(
                    both(
                                    "before",
                                    "Whether the first lies wholly before the second.",
                                    RangeFunctions::before,
                                    true,
                                    true)
                            .example("before([1..5], [6..10])", "true")
                            .example("before(1, 10)", "true"),
                    both(
                                    "after",
                                    "Whether the first lies wholly behind the second.",
                                    (a, b) -> before(b, a),
                                    true,
                                    true)
                            .example("after([6..10], [1..5])", "true"),
                    both(
                                    "meets",
                                    "Whether the first ends where the second begins.",
                                    RangeFunctions::meets,
                                    false,
                                    false)
                            .example("meets([1..5], [5..10])", "true"),
                    both(
                                    "met by",
                                    "Whether the first begins where the second ends.",
                                    (a, b) -> meets(b, a),
                                    false,
                                    false)
                            .example("met by([5..10], [1..5])", "true"),
                    both(
                                    "overlaps",
                                    "Whether two ranges have something in common.",
                                    RangeFunctions::overlaps,
                                    false,
                                    false)
                            .example("overlaps([1..5], [3..8])", "true"),
                    both(
                                    "overlaps before",
                                    "Whether the first begins before the second and ends in it.",
                                    RangeFunctions::overlapsBefore,
                                    false,
                                    false)
                            .example("overlaps before([1..5], [3..8])", "true"),
                    both(
                                    "overlaps after",
                                    "Whether the first begins in the second and ends behind it.",
                                    (a, b) -> overlapsBefore(b, a),
                                    false,
                                    false)
                            .example("overlaps after([3..8], [1..5])", "true"),
                    both(
                                    "finishes",
                                    "Whether the first lies in the second and ends with it.",
                                    RangeFunctions::finishes,
                                    true,
                                    false)
                            .example("finishes(10, [1..10])", "true"),
                    both(
                                    "finished by",
                                    "Whether the second lies in the first and ends with it.",
                                    (a, b) -> finishes(b, a),
                                    false,
                                    true)
                            .example("finished by([1..10], [5..10])", "true"),
                    both(
                                    "includes",
                                    "Whether the second lies in the first.",
                                    RangeFunctions::includes,
                                    false,
                                    true)
                            .example("includes([1..10], 5)", "true"),
                    both(
                                    "during",
                                    "Whether the first lies in the second.",
                                    (a, b) -> includes(b, a),
                                    true,
                                    false)
                            .example("during(5, [1..10])", "true"),
                    both(
                                    "starts",
                                    "Whether the first lies in the second and begins with it.",
                                    RangeFunctions::starts,
                                    true,
                                    false)
                            .example("starts([1..5], [1..10])", "true"),
                    both(
                                    "started by",
                                    "Whether the second lies in the first and begins with it.",
                                    (a, b) -> starts(b, a),
                                    false,
                                    true)
                            .example("started by([1..10], 1)", "true"),
                    both(
                                    "coincides",
                                    "Whether both are the same.",
                                    RangeFunctions::coincides,
                                    true,
                                    true)
                            .example("coincides([1..5], [1..5])", "true"),
                    Builtin.of("range", CHAPTER, "A range from text.")
                            .form(
                                    new LogicType.RangeOf(Simple.ANY),
                                    RangeFunctions::parsed,
                                    taking("from", ParameterKind.TEXT))
                            .example("range(\"[18..21)\")", "[18..21)"));

    private RangeFunctions() {}

    private interface Relation {
        /** Null when the ends have no order between them. */
        @Nullable Boolean holds(Span a, Span b);
    }

    /** A point or a range; a point is a range with both ends at it. */
    private record Span(Object start, boolean from, Object end, boolean to, boolean isPoint) {
        static Span of(Object value) {
            return value instanceof Range range
                    ? new Span(
                            range.start(),
                            range.startIncluded(),
                            range.end(),
                            range.endIncluded(),
                            false)
                    : new Span(value, true, value, true, true);
        }
    }

    private static Builtin both(
            String name,
            String describe,
            Relation relation,
            boolean firstMayBePoint,
            boolean secondMayBePoint) {
        return Builtin.of(name, CHAPTER, describe)
                .form(
                        Simple.BOOLEAN,
                        arguments -> {
                            var holds =
                                    relation.holds(
                                            Span.of(arguments.any(0)), Span.of(arguments.any(1)));
                            return holds == null
                                    ? arguments.fail(name + ": these have no order between them.")
                                    : holds;
                        },
                        taking(
                                firstMayBePoint ? "point or range 1" : "range1",
                                firstMayBePoint
                                        ? ParameterKind.POINT_OR_RANGE
                                        : ParameterKind.RANGE),
                        taking(
                                secondMayBePoint ? "point or range 2" : "range2",
                                secondMayBePoint
                                        ? ParameterKind.POINT_OR_RANGE
                                        : ParameterKind.RANGE));
    }

    /** Compares two ends; an open end lies beyond all others. */
    private static @Nullable Integer order(Object a, boolean aIsStart, Object b, boolean bIsStart) {
        if (a == Nothing.NULL || b == Nothing.NULL) {
            int left = a == Nothing.NULL ? (aIsStart ? -1 : 1) : 0;
            int right = b == Nothing.NULL ? (bIsStart ? -1 : 1) : 0;
            return Integer.compare(left, right);
        }
        return Values.order(a, b);
    }

    private static @Nullable Boolean before(Span a, Span b) {
        var order = order(a.end(), false, b.start(), true);
        return order == null ? null : order < 0 || (order == 0 && !(a.to() && b.from()));
    }

    private static @Nullable Boolean meets(Span a, Span b) {
        var order = order(a.end(), false, b.start(), true);
        return order == null ? null : order == 0 && a.to() && b.from();
    }

    private static @Nullable Boolean overlaps(Span a, Span b) {
        var apart = before(a, b);
        var behind = before(b, a);
        return (apart == null || behind == null) ? null : !apart && !behind;
    }

    private static @Nullable Boolean overlapsBefore(Span a, Span b) {
        var starts = order(a.start(), true, b.start(), true);
        var ends = order(a.end(), false, b.end(), false);
        var touches = overlaps(a, b);
        if (starts == null || ends == null || touches == null) {
            return null;
        }
        return (starts < 0 || (starts == 0 && a.from() && !b.from()))
                && touches
                && (ends < 0 || (ends == 0 && (!a.to() || b.to())));
    }

    private static @Nullable Boolean finishes(Span a, Span b) {
        var ends = order(a.end(), false, b.end(), false);
        if (ends == null) {
            return null;
        }
        if (a.isPoint()) {
            return ends == 0 && b.to();
        }
        var starts = order(a.start(), true, b.start(), true);
        return starts == null
                ? null
                : ends == 0
                        && a.to() == b.to()
                        && (starts > 0 || (starts == 0 && (!a.from() || b.from())));
    }

    private static @Nullable Boolean includes(Span a, Span b) {
        var starts = order(a.start(), true, b.start(), true);
        var ends = order(a.end(), false, b.end(), false);
        return (starts == null || ends == null)
                ? null
                : (starts < 0 || (starts == 0 && (a.from() || !b.from())))
                        && (ends > 0 || (ends == 0 && (a.to() || !b.to())));
    }

    private static @Nullable Boolean starts(Span a, Span b) {
        var starts = order(a.start(), true, b.start(), true);
        if (starts == null) {
            return null;
        }
        if (a.isPoint()) {
            return starts == 0 && b.from();
        }
        var ends = order(a.end(), false, b.end(), false);
        return ends == null
                ? null
                : starts == 0
                        && a.from() == b.from()
                        && (ends < 0 || (ends == 0 && (!a.to() || b.to())));
    }

    private static @Nullable Boolean coincides(Span a, Span b) {
        var starts = order(a.start(), true, b.start(), true);
        var ends = order(a.end(), false, b.end(), false);
        return (starts == null || ends == null || a.isPoint() != b.isPoint())
                ? null
                : starts == 0 && ends == 0 && a.from() == b.from() && a.to() == b.to();
    }

    private static Object parsed(CallArguments arguments) {
        var text = arguments.text(0);
        var parsed = Parser.parse(text);
        if (parsed.problems().isEmpty()) {
            var made = range(parsed.expr());
            if (made != null) {
                return made;
            }
        }
        return arguments.fail("%s is not a range, as in [18..21).".formatted(Quoted.of(text)));
    }

    private static @Nullable Range range(Expr expr) {
        return switch (expr) {
            case Expr.Range range -> {
                var start = constant(range.low());
                var end = constant(range.high());
                if (start == null
                        || end == null
                        || (start == Nothing.NULL && end == Nothing.NULL)) {
                    yield null;
                }
                boolean fits =
                        start == Nothing.NULL || end == Nothing.NULL || isForward(start, end);
                yield fits
                        ? new Range(start, range.lowIncluded(), end, range.highIncluded())
                        : null;
            }
            case Expr.UnaryTest test -> {
                var end = constant(test.operand());
                if (end == null) {
                    yield null;
                }
                yield switch (test.operator()) {
                    case LESS -> new Range(Nothing.NULL, false, end, false);
                    case LESS_OR_EQUAL -> new Range(Nothing.NULL, false, end, true);
                    case GREATER -> new Range(end, false, Nothing.NULL, false);
                    case GREATER_OR_EQUAL -> new Range(end, true, Nothing.NULL, false);
                    case EQUAL -> new Range(end, true, end, true);
                    case NOT_EQUAL -> null;
                };
            }
            default -> null;
        };
    }

    private static boolean isForward(Object start, Object end) {
        var order = Values.order(start, end);
        return order != null && order <= 0;
    }

    private static @Nullable Object constant(Expr expr) {
        return switch (expr) {
            case Expr.NumberLiteral number -> Decimal.of(number.value());
            case Expr.TextLiteral text -> text.value();
            case Expr.TemporalLiteral temporal -> TemporalText.any(temporal.text());
            case Expr.NullLiteral _ -> Nothing.NULL;
            case Expr.Negation negation ->
                    constant(negation.operand()) instanceof Decimal number
                            ? number.negated()
                            : null;
            case Expr.Call call when call.arguments().size() == 1 -> called(call);
            default -> null;
        };
    }

    private static @Nullable Object called(Expr.Call call) {
        if (!(call.arguments().getFirst().value() instanceof Expr.TextLiteral text)) {
            return null;
        }
        return switch (call.function()) {
            case "date" -> TemporalText.date(text.value());
            case "time" -> TemporalText.time(text.value());
            case "date and time" -> TemporalText.moment(text.value());
            case "duration" -> TemporalText.duration(text.value());
            default -> null;
        };
    }
}
