package sandpiper.logic.condition;

import java.time.Duration;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.syntax.ArithmeticOperator;
import sandpiper.logic.term.FormulaMember;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;

/**
 * Brings a value of an item down to an {@link Operand}. A field that is worked out on read is
 * brought down as its formula, with the record it is of in the place of the item.
 */
final class Operands {
    /** Makes the operand once the values it needs are known. */
    @FunctionalInterface
    interface Binder {
        Operand bind(List<Object> values, ZoneId zone);
    }

    private static final Set<String> TEXT_FUNCTIONS =
            Set.of("lower case", "upper case", "string length");
    private static final Set<String> PIECES = Set.of("year", "month", "day");
    private static final long SECONDS_A_DAY = 86_400;

    private final ConditionExtractor lowering;

    Operands(ConditionExtractor lowering) {
        this.lowering = lowering;
    }

    /** The operand a term is, or {@code null} when a store cannot work it out. */
    @Nullable Binder of(Term term) {
        if (!lowering.varies(term)) {
            return fixed(term);
        }
        var field = field(term);
        if (field != null) {
            return worked(field);
        }
        return switch (term) {
            case Term.Arithmetic arithmetic -> arithmetic(arithmetic);
            case Term.Property property -> piece(property);
            case Term.If choice -> choice(choice);
            case Term.Aggregate aggregate -> total(aggregate);
            case Term.Call call when call.type() != Simple.BOOLEAN -> ofText(call);
            // A flag that is no field is of something a store cannot find: inspections[1].passed.
            case Term.Read _ -> null;
            default -> term.type() == Simple.BOOLEAN ? truth(term) : null;
        };
    }

    /** The stored field a term is, or {@code null} when it is anything else. */
    Operand.@Nullable Field stored(Term term) {
        var field = field(term);
        return field == null || field.formula() != null ? null : field.operand();
    }

    /** A field with its formula when it is not stored. */
    private record Found(Operand.Field operand, FormulaMember.@Nullable Formula formula) {}

    private @Nullable Found field(Term term) {
        var names = new ArrayList<String>();
        FormulaMember.Formula formula = null;
        var at = term;
        while (at instanceof Term.Read read) {
            boolean many =
                    read.member().reference() != null
                            || read.member().type() instanceof LogicType.ListOf;
            var worked = read.member() instanceof FormulaMember member ? member.formula() : null;
            // Behind a reference that is not stored there is nothing to join.
            if (many || (worked != null && !names.isEmpty())) {
                return null;
            }
            formula = worked == null ? formula : worked;
            names.addFirst(read.member().name());
            at = read.source();
        }
        if (!(at instanceof Term.Local local)) {
            return null;
        }
        var stands = lowering.tested(local.slot());
        if (stands != null && names.isEmpty()) {
            return field(stands);
        }
        if (local.slot() != lowering.item().slot()
                || (names.isEmpty() && lowering.prefix().isEmpty())) {
            return null;
        }
        names.addAll(0, lowering.prefix());
        return new Found(new Operand.Field(names, term.type(), term.span()), formula);
    }

    private @Nullable Binder worked(Found found) {
        var field = found.operand();
        var formula = found.formula();
        if (formula == null) {
            return (_, _) -> field;
        }
        var around = lowering.surroundings();
        var type = formula.term().type();
        boolean sameKind =
                (type.isNumeric() && field.type().isNumeric())
                        || (type.isTextual() && field.type().isTextual())
                        || type.equals(field.type());
        if (around.depth() >= OuterScope.DEEPEST || !sameKind || hasAnyCurrency(field.type())) {
            return null;
        }
        var inner =
                new ConditionExtractor(
                                formula.record(),
                                field.path().subList(0, field.path().size() - 1),
                                lowering.values(),
                                new ConditionExtractor.Obstacle(),
                                new OuterScope(
                                        formula.slots(),
                                        Set.of(),
                                        around.depth() + 1,
                                        around.items()))
                        .operands()
                        .of(formula.term());
        return inner == null
                ? null
                : (bound, zone) ->
                        new Operand.Worked(field.path(), inner.bind(bound, zone), field.type());
    }

    /** What is the same for every item. */
    private @Nullable Binder fixed(Term term) {
        var type = term.type();
        if (type == Simple.NOTHING) {
            return (_, _) -> new Operand.Nothing(type);
        }
        if (!isPlain(type)) {
            return null;
        }
        int at = lowering.hole(term);
        return (bound, zone) -> {
            var value = ValueComparison.stored(type, bound.get(at), zone);
            return value == null ? new Operand.Nothing(type) : new Operand.Value(value, type);
        };
    }

    private static boolean isPlain(LogicType type) {
        return (type.isNumeric() && !hasAnyCurrency(type))
                || type.isTextual()
                || type == Simple.BOOLEAN
                || type == Simple.DATE
                || type == Simple.TIME
                || type == Simple.DATE_TIME
                || type == Simple.DURATION;
    }

    private static boolean hasAnyCurrency(LogicType type) {
        return type instanceof LogicType.AmountOf(var currency) && currency == null;
    }

    private @Nullable Binder arithmetic(Term.Arithmetic term) {
        var operator = term.operator();
        var left = term.left();
        var right = term.right();
        boolean adds = operator == ArithmeticOperator.PLUS || operator == ArithmeticOperator.MINUS;
        if (adds && left.type() == Simple.DATE && right.type() == Simple.DURATION) {
            return later(left, right, operator == ArithmeticOperator.PLUS ? 1 : -1);
        }
        if (operator == ArithmeticOperator.DIVIDE && isDays(left) && isOneDay(right)) {
            var time = of(left);
            return time == null
                    ? null
                    : (bound, zone) ->
                            new Operand.Piece(time.bind(bound, zone), "days", Simple.NUMBER);
        }
        return isExact(operator, left.type(), right.type()) ? both(term, left, right) : null;
    }

    /** Whether it is the time between two days, which is whole days. */
    private static boolean isDays(Term term) {
        return term instanceof Term.Arithmetic between
                && between.operator() == ArithmeticOperator.MINUS
                && between.left().type() == Simple.DATE
                && between.right().type() == Simple.DATE;
    }

    /** {@code duration("P1D")}, by which days are counted. */
    private static boolean isOneDay(Term term) {
        var written =
                term instanceof Term.Call(var function, var arguments, _, _)
                                && function.name().equals("duration")
                        ? arguments.getFirst()
                        : term;
        return written instanceof Term.Constant constant
                && (constant.value().equals("P1D") || constant.value().equals(Duration.ofDays(1)));
    }

    private @Nullable Binder both(Term.Arithmetic term, Term left, Term right) {
        var a = of(left);
        var b = of(right);
        return a == null || b == null
                ? null
                : (bound, zone) ->
                        new Operand.Arithmetic(
                                term.operator(),
                                a.bind(bound, zone),
                                b.bind(bound, zone),
                                term.type());
    }

    /** Whether whole numbers of the store's smallest units come to the very same. */
    private static boolean isExact(ArithmeticOperator operator, LogicType a, LogicType b) {
        boolean numbers =
                a.isNumeric() && b.isNumeric() && !hasAnyCurrency(a) && !hasAnyCurrency(b);
        return switch (operator) {
            case TIMES -> numbers;
            case PLUS, MINUS -> {
                boolean shares = a == Simple.PERCENT || b == Simple.PERCENT;
                boolean moved =
                        (a == Simple.DATE_TIME || a == Simple.DURATION) && b == Simple.DURATION;
                boolean between =
                        operator == ArithmeticOperator.MINUS
                                && a == b
                                && (a == Simple.DATE || a == Simple.DATE_TIME);
                yield (numbers && !shares) || moved || between;
            }
            case DIVIDE, POWER -> false;
        };
    }

    /** Hours do not move a date; whole days do. */
    private @Nullable Binder later(Term date, Term duration, int sign) {
        var moved = lowering.varies(duration) ? null : of(date);
        if (moved == null) {
            return null;
        }
        int at = lowering.hole(duration);
        return (bound, zone) ->
                bound.get(at) instanceof Duration by
                        ? new Operand.Later(
                                moved.bind(bound, zone),
                                Math.floorDiv(by.multipliedBy(sign).toSeconds(), SECONDS_A_DAY))
                        : new Operand.Nothing(Simple.DATE);
    }

    private @Nullable Binder piece(Term.Property property) {
        var type = property.source().type();
        if (type instanceof LogicType.ContextOf(var entries)) {
            var field = stored(property.source());
            var of = entries == null ? null : entries.get(property.name());
            return field == null || of == null
                    ? null
                    : (bound, zone) -> new Operand.Piece(field, property.name(), of);
        }
        boolean known =
                (type == Simple.DATE && PIECES.contains(property.name()))
                        || (type == Simple.DURATION && property.name().equals("days"));
        var source = known ? of(property.source()) : null;
        return source == null
                ? null
                : (bound, zone) ->
                        new Operand.Piece(source.bind(bound, zone), property.name(), Simple.NUMBER);
    }

    private @Nullable Binder choice(Term.If choice) {
        var when = lowering.lower(choice.condition());
        var then = of(choice.then());
        var otherwise = of(choice.otherwise());
        boolean fits = isPlain(choice.type()) && areOf(choice.then(), choice.otherwise());
        return when == null || then == null || otherwise == null || !fits
                ? null
                : (bound, zone) ->
                        new Operand.Choice(
                                when.bind(bound, zone),
                                then.bind(bound, zone),
                                otherwise.bind(bound, zone),
                                counted(choice.type()));
    }

    /** Two shares to choose from are taken as the numbers they count as. */
    private static LogicType counted(LogicType type) {
        return type == Simple.PERCENT ? Simple.NUMBER : type;
    }

    private static boolean areOf(Term then, Term otherwise) {
        return then.type() == Simple.NOTHING
                || otherwise.type() == Simple.NOTHING
                || (isPlain(then.type()) && then.type().isNumeric() && otherwise.type().isNumeric())
                || ValueComparison.areAlike(then.type(), otherwise.type());
    }

    private @Nullable Binder ofText(Term.Call call) {
        var function = call.function().name();
        if (!TEXT_FUNCTIONS.contains(function)) {
            return null;
        }
        var text = text(call.arguments().getFirst());
        return text == null
                ? null
                : (bound, zone) -> {
                    var of = text.bind(bound, zone);
                    return function.equals("string length")
                            ? new Operand.Length(of)
                            : new Operand.Letters(of, function.equals("upper case"));
                };
    }

    /** A text, stored or worked out; a reference among texts is the key it points to. */
    @Nullable Binder text(Term term) {
        var named = stored(term);
        if (named != null) {
            var field = ValueComparison.keyed(named);
            return field.type().isTextual() ? (_, _) -> field : null;
        }
        return term.type() == Simple.TEXT ? of(term) : null;
    }

    private @Nullable Binder truth(Term term) {
        var condition = lowering.lower(term);
        return condition == null
                ? null
                : (bound, zone) -> new Operand.Truth(condition.bind(bound, zone));
    }

    private @Nullable Binder total(Term.Aggregate aggregate) {
        var around = lowering.surroundings();
        var foreign = new HashSet<>(around.foreign());
        foreign.add(lowering.item().slot());
        foreign.addAll(lowering.testedSlots());
        var found =
                Selections.total(
                        aggregate,
                        new OuterScope(around.ownSlots(), foreign, around.depth(), false));
        if (found.isEmpty()) {
            return null;
        }
        var selections = found.get().selections();
        var owner = selections.owner() == null ? List.<String>of() : path(selections.owner());
        if (owner == null) {
            return null;
        }
        int first = lowering.take(selections.values());
        int last = first + selections.values().size();
        return (bound, zone) ->
                new Operand.Total(
                        found.get().total(),
                        selections.records(),
                        selections.path(),
                        owner,
                        selections.bind(null, bound.subList(first, last), zone).condition());
    }

    /** The references to the record whose others are wanted, or {@code null}. */
    private @Nullable List<String> path(Term owner) {
        if (owner instanceof Term.Local local) {
            return local.slot() == lowering.item().slot() ? lowering.prefix() : null;
        }
        var field = stored(owner);
        return field == null ? null : field.path();
    }
}
