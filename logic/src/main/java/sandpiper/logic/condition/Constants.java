package sandpiper.logic.condition;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.Problem;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;

/**
 * Works out the values that stand in a condition: literals and the functions that make dates and
 * times.
 */
final class Constants {
    static final Set<String> FUNCTIONS =
            Set.of("date", "time", "date and time", "duration", "today", "now");

    private final Clock clock;
    private final List<Problem> problems;

    Constants(Clock clock, List<Problem> problems) {
        this.clock = clock;
        this.problems = problems;
    }

    /**
     * The value of an expression that reads no field, or nothing when it does or is wrong (which is
     * then reported).
     */
    Optional<Operand.Value> of(Expr expr) {
        return Optional.ofNullable(
                switch (expr) {
                    case Expr.NumberLiteral literal -> value(literal.value(), Simple.NUMBER);
                    case Expr.TextLiteral literal -> value(literal.value(), Simple.TEXT);
                    case Expr.BooleanLiteral literal -> value(literal.value(), Simple.BOOLEAN);
                    case Expr.TemporalLiteral literal -> temporal(literal);
                    case Expr.Negation negation -> negated(negation);
                    case Expr.Call call when FUNCTIONS.contains(call.function()) -> made(call);
                    default -> null;
                });
    }

    private static Operand.Value value(Object value, LogicType type) {
        return new Operand.Value(value, type);
    }

    private Operand.@Nullable Value negated(Expr.Negation negation) {
        var inner = of(negation.operand()).orElse(null);
        if (inner == null) {
            return null;
        }
        return switch (inner.value()) {
            case BigDecimal number -> value(number.negate(), Simple.NUMBER);
            case Duration duration -> value(duration.negated(), Simple.DURATION);
            default -> {
                problems.add(
                        new Problem(
                                LogicCode.WRONG_TYPE,
                                negation.span(),
                                "A minus goes before a number, but this is %s."
                                        .formatted(inner.type().described())));
                yield null;
            }
        };
    }

    private Operand.@Nullable Value temporal(Expr.TemporalLiteral literal) {
        var text = literal.text();
        if (text.startsWith("P") || text.startsWith("-P")) {
            return parsed("duration", text, literal.span());
        }
        if (text.contains("T")) {
            return parsed("date and time", text, literal.span());
        }
        return parsed(text.contains(":") ? "time" : "date", text, literal.span());
    }

    private Operand.@Nullable Value made(Expr.Call call) {
        var clockless = !call.function().equals("today") && !call.function().equals("now");
        if (call.arguments().size() != (clockless ? 1 : 0)) {
            problems.add(
                    new Problem(
                            LogicCode.WRONG_ARGUMENTS,
                            call.span(),
                            clockless
                                    ? "%s takes one text, as in %s."
                                            .formatted(call.function(), example(call.function()))
                                    : "%s takes nothing in its brackets."
                                            .formatted(call.function())));
            return null;
        }
        if (call.function().equals("today")) {
            return value(LocalDate.now(clock), Simple.DATE);
        }
        if (call.function().equals("now")) {
            return value(Instant.now(clock), Simple.DATE_TIME);
        }
        if (call.arguments().getFirst() instanceof Expr.TextLiteral text) {
            return parsed(call.function(), text.value(), text.span());
        }
        problems.add(
                new Problem(
                        LogicCode.WRONG_ARGUMENTS,
                        call.arguments().getFirst().span(),
                        "%s takes a text in double quotes, as in %s."
                                .formatted(call.function(), example(call.function()))));
        return null;
    }

    private Operand.@Nullable Value parsed(String function, String text, Span span) {
        try {
            return switch (function) {
                case "date" -> value(LocalDate.parse(text), Simple.DATE);
                case "time" -> value(LocalTime.parse(text), Simple.TIME);
                case "duration" -> value(Duration.parse(text), Simple.DURATION);
                default -> value(instant(text), Simple.DATE_TIME);
            };
        } catch (DateTimeException _) {
            problems.add(
                    new Problem(
                            LogicCode.BAD_TEMPORAL,
                            span,
                            "%s is not a %s; write it as in %s."
                                    .formatted(Quoted.of(text), function, example(function))));
            return null;
        }
    }

    private Instant instant(String text) {
        var time = text.substring(Math.max(0, text.indexOf('T')));
        boolean zoned = time.endsWith("Z") || time.contains("+") || time.contains("-");
        return zoned
                ? OffsetDateTime.parse(text).toInstant()
                : LocalDateTime.parse(text).atZone(clock.getZone()).toInstant();
    }

    private static String example(String function) {
        return switch (function) {
            case "date" -> "date(\"2026-05-01\")";
            case "time" -> "time(\"14:30:00\")";
            case "duration" -> "duration(\"P1DT6H\")";
            default -> "date and time(\"2026-05-01T14:30:00\")";
        };
    }

    /** Reports a call of something that does not exist or has no place in a condition. */
    void unknownFunction(Expr.Call call, Set<String> known) {
        var names = new java.util.TreeSet<>(known);
        names.addAll(FUNCTIONS);
        problems.add(
                new Problem(
                        LogicCode.UNKNOWN_FUNCTION,
                        call.functionSpan(),
                        "There is no function %s for conditions; there are %s."
                                .formatted(Quoted.of(call.function()), String.join(", ", names)),
                        Nearest.to(call.function(), names).orElse(null)));
    }
}
