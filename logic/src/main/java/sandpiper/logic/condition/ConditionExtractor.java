package sandpiper.logic.condition;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Decimal;

/**
 * Brings a typed condition about an item down to a {@link Condition}. Whatever does not depend on
 * the item is a value that is worked out beforehand.
 */
final class ConditionExtractor {
    /** Makes the condition once its values are known. */
    @FunctionalInterface
    interface Binder {
        Condition bind(List<Object> values, ZoneId zone);
    }

    /** The first thing that cannot be brought down. */
    static final class Obstacle {
        private @Nullable Span span;

        void at(Span place) {
            if (span == null) {
                span = place;
            }
        }

        Optional<Span> span() {
            return Optional.ofNullable(span);
        }
    }

    private final Term.Local item;
    private final List<String> prefix;
    private final List<BoundInput> values;
    private final Map<Integer, Term> tested = new HashMap<>();
    private final Obstacle obstacle;
    private final OuterScope surroundings;
    private final Operands operands;

    /**
     * @param item the record the condition is about
     * @param prefix references that lead to it from the record that is selected
     * @param values takes what must be worked out beforehand
     */
    ConditionExtractor(
            Term.Local item,
            List<String> prefix,
            List<BoundInput> values,
            Obstacle obstacle,
            OuterScope surroundings) {
        this.item = item;
        this.prefix = prefix;
        this.values = values;
        this.obstacle = obstacle;
        this.surroundings = surroundings;
        this.operands = new Operands(this);
    }

    Optional<Binder> condition(Term term) {
        var binder = lower(term);
        if (binder == null) {
            obstacle.at(term.span());
        }
        return Optional.ofNullable(binder);
    }

    @Nullable Binder lower(Term term) {
        var made =
                switch (term) {
                    case Term.Logical logical -> logical(logical);
                    case Term.Compare compare ->
                            compare(compare.left(), compare.operator(), compare.right());
                    case Term.Within within -> within(within);
                    case Term.Matches matches -> matches(matches.value(), matches.test());
                    case Term.Call call -> call(call);
                    case Term.Read read -> flag(read);
                    case Term.Quantified quantified -> overItems(quantified);
                    default -> null;
                };
        if (made == null && !varies(term)) {
            return fixed(term);
        }
        if (made == null) {
            obstacle.at(term.span());
        }
        return made;
    }

    Term.Local item() {
        return item;
    }

    List<String> prefix() {
        return prefix;
    }

    Obstacle obstacle() {
        return obstacle;
    }

    OuterScope surroundings() {
        return surroundings;
    }

    Operands operands() {
        return operands;
    }

    /** Takes in what something inside needs; says at which place it begins. */
    int take(List<BoundInput> needed) {
        values.addAll(needed);
        return values.size() - needed.size();
    }

    List<BoundInput> values() {
        return values;
    }

    /** What stands at a place because {@code in} puts it there, or {@code null}. */
    @Nullable Term tested(int slot) {
        return tested.get(slot);
    }

    Set<Integer> testedSlots() {
        return tested.keySet();
    }

    /** Whether a value is another for each item, or for each record around the condition. */
    boolean varies(Term term) {
        return Terms.any(
                term,
                one ->
                        one instanceof Term.Local local
                                && (local.slot() == item.slot()
                                        || tested.containsKey(local.slot())
                                        || surroundings.foreign().contains(local.slot())));
    }

    /** A condition that has nothing to do with the item: true for all or for none. */
    private Binder fixed(Term term) {
        int at = hole(term);
        return (bound, _) ->
                bound.get(at) instanceof Boolean flag
                        ? flag ? new Condition.All(List.of()) : new Condition.Any(List.of())
                        : new Condition.Unknown();
    }

    int hole(Term term) {
        values.add(new BoundInput(term, surroundings.ownSlots()));
        return values.size() - 1;
    }

    private @Nullable Binder logical(Term.Logical logical) {
        var parts = new ArrayList<Binder>();
        for (var part : logical.parts()) {
            var lowered = lower(part);
            if (lowered == null) {
                return null;
            }
            parts.add(lowered);
        }
        return (bound, zone) -> {
            var conditions = parts.stream().map(part -> part.bind(bound, zone)).toList();
            return logical.isAnd() ? new Condition.All(conditions) : new Condition.Any(conditions);
        };
    }

    private @Nullable Binder flag(Term.Read read) {
        var flag = read.type() == Simple.BOOLEAN ? operands.of(read) : null;
        return flag == null ? null : (bound, zone) -> new Condition.Holds(flag.bind(bound, zone));
    }

    private @Nullable Binder compare(Term left, Operator operator, Term right) {
        var year = year(left, operator, right);
        year = year == null ? year(right, operator.flipped(), left) : year;
        if (year != null) {
            return year;
        }
        if (varies(left) && varies(right)) {
            return both(left, operator, right);
        }
        var side = varies(left) ? left : right;
        var operand = varies(side) ? operands.of(side) : null;
        return operand == null
                ? null
                : side == left
                        ? value(operand, operator, hole(right))
                        : value(operand, operator.flipped(), hole(left));
    }

    private @Nullable Binder both(Term left, Operator operator, Term right) {
        if (!ValueComparison.areAlike(left.type(), right.type())) {
            return null;
        }
        var a = operands.of(left);
        var b = operands.of(right);
        return a == null || b == null
                ? null
                : (bound, zone) ->
                        new Condition.Compare(a.bind(bound, zone), operator, b.bind(bound, zone));
    }

    private static Binder value(Operands.Binder operand, Operator operator, int hole) {
        return (bound, zone) ->
                ValueComparison.of(operand.bind(bound, zone), operator, bound.get(hole), zone);
    }

    /** {@code arrival.year = 2026}: from the first day of the year to the first of the next. */
    private @Nullable Binder year(Term left, Operator operator, Term right) {
        if (!(left instanceof Term.Property(var source, var name, _, _))
                || !name.equals("year")
                || source.type() != Simple.DATE
                || operator != Operator.EQUAL
                || varies(right)) {
            return null;
        }
        var field = varies(source) ? operands.of(source) : null;
        if (field == null) {
            return null;
        }
        int at = hole(right);
        return (bound, zone) -> {
            if (!(bound.get(at) instanceof Decimal year)
                    || year.asInt().isEmpty()
                    || Math.abs(year.asInt().getAsInt()) > 9_999) {
                return new Condition.Unknown();
            }
            var first = LocalDate.of(year.asInt().getAsInt(), 1, 1);
            var date = field.bind(bound, zone);
            return new Condition.All(
                    List.of(
                            ValueComparison.of(date, Operator.GREATER_OR_EQUAL, first, zone),
                            ValueComparison.of(date, Operator.LESS, first.plusYears(1), zone)));
        };
    }

    /** {@code some c in charges satisfies c.quantity > 2}, over the line items of the record. */
    private @Nullable Binder overItems(Term.Quantified quantified) {
        if (!surroundings.items() || quantified.sources().size() != 1) {
            return null;
        }
        var source = quantified.sources().getFirst();
        if (source.end() != null
                || !(source.domain() instanceof Term.Read(var owner, var member, _))
                || !(owner instanceof Term.Local local && local.slot() == item.slot())
                || !prefix.isEmpty()
                || !(member.type() instanceof LogicType.ListOf)
                || member.reference() != null) {
            return null;
        }
        var foreign = new HashSet<>(surroundings.foreign());
        foreign.add(item.slot());
        foreign.addAll(testedSlots());
        var inner =
                new ConditionExtractor(
                                source.item(),
                                List.of(),
                                values,
                                obstacle,
                                new OuterScope(
                                        surroundings.ownSlots(),
                                        foreign,
                                        surroundings.depth(),
                                        false))
                        .lower(quantified.condition());
        return inner == null
                ? null
                : (bound, zone) ->
                        new Condition.OverItems(
                                quantified.isEvery(), member.name(), inner.bind(bound, zone));
    }

    private @Nullable Binder within(Term.Within within) {
        if (!varies(within.value()) || operands.of(within.value()) == null) {
            return null;
        }
        tested.put(within.tested().slot(), within.value());
        return logical(new Term.Logical(false, within.tests(), within.span()));
    }

    private @Nullable Binder matches(Term value, Term test) {
        var field = varies(value) && !varies(test) ? operands.of(value) : null;
        if (field == null) {
            return null;
        }
        if (test instanceof Term.RangeOf range) {
            return range(field, range);
        }
        if (test.type() instanceof LogicType.ListOf || test.type() instanceof LogicType.RangeOf) {
            return null;
        }
        return test.type() == Simple.ANY ? null : value(field, Operator.EQUAL, hole(test));
    }

    private Binder range(Operands.Binder field, Term.RangeOf range) {
        var parts = new ArrayList<Binder>();
        if (range.start() != null) {
            parts.add(
                    value(
                            field,
                            range.startIncluded() ? Operator.GREATER_OR_EQUAL : Operator.GREATER,
                            hole(range.start())));
        }
        if (range.end() != null) {
            parts.add(
                    value(
                            field,
                            range.endIncluded() ? Operator.LESS_OR_EQUAL : Operator.LESS,
                            hole(range.end())));
        }
        return (bound, zone) ->
                new Condition.All(parts.stream().map(part -> part.bind(bound, zone)).toList());
    }

    private @Nullable Binder call(Term.Call call) {
        var arguments = call.arguments();
        return switch (call.function().name()) {
            case "not" -> {
                var inner = lower(arguments.getFirst());
                yield inner == null
                        ? null
                        : (bound, zone) -> new Condition.Not(inner.bind(bound, zone));
            }
            case "contains" -> text(arguments, Condition.TextMatch.Place.ANYWHERE);
            case "starts with" -> text(arguments, Condition.TextMatch.Place.START);
            case "ends with" -> text(arguments, Condition.TextMatch.Place.END);
            default -> null;
        };
    }

    private @Nullable Binder text(List<Term> arguments, Condition.TextMatch.Place place) {
        var within = operands.text(arguments.getFirst());
        if (within == null || varies(arguments.get(1))) {
            return null;
        }
        int at = hole(arguments.get(1));
        return (bound, zone) ->
                bound.get(at) instanceof String text
                        ? new Condition.TextMatch(within.bind(bound, zone), place, text)
                        : new Condition.Unknown();
    }
}
