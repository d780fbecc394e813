package sandpiper.logic.run;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sandpiper.logic.condition.Selection;
import sandpiper.logic.condition.Selections;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Months;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.Values;

/** Leaves to the store what the store can answer, so that no table is loaded to be counted. */
final class Pushdown {
    private Pushdown() {}

    /** A template with its compiled values. */
    private record Bound(Selections template, Op owner, Op[] values) {
        static Bound of(Selections template) {
            var owner = template.owner();
            return new Bound(
                    template,
                    owner == null ? _ -> Nothing.NULL : Compiler.op(owner),
                    template.values().stream().map(Compiler::op).toArray(Op[]::new));
        }

        /** The selection, or {@code null} when its owner is empty and so has no records. */
        @org.jspecify.annotations.Nullable
        Selection bind(Frame frame) {
            RecordValue record = null;
            if (template.owner() != null) {
                if (!(owner.eval(frame) instanceof RecordValue found)) {
                    return null;
                }
                record = found;
            }
            var bound = new ArrayList<Object>(values.length);
            for (var value : values) {
                bound.add(value.eval(frame));
            }
            return template.bind(record, bound, frame.run().zone());
        }
    }

    /** Records of a term that is known to be a selection. */
    static Op records(Term term) {
        var bound = Bound.of(Selections.of(term).orElseThrow());
        return frame -> {
            var selection = bound.bind(frame);
            return selection == null
                    ? List.of()
                    : counted(frame.run().records().select(selection), frame);
        };
    }

    private static List<Object> counted(List<Object> records, Frame frame) {
        frame.run().spend(records.size());
        return records;
    }

    static Op find(Term.Find find) {
        Term filtered =
                find.where() == null
                        ? find.records()
                        : new Term.Filter(
                                find.records(),
                                find.item(),
                                find.where(),
                                find.records().type(),
                                find.span());
        Op take = find.take() == null ? _ -> Nothing.NULL : Compiler.op(find.take());
        var inStore = order(find);
        var template = Selections.of(filtered);
        if (inStore.isPresent() && template.isPresent()) {
            return inStore(find, Bound.of(template.get()), inStore.get(), take);
        }
        var all = Compiler.op(filtered);
        var orders = find.orders().stream().map(order -> Compiler.op(order.by())).toList();
        int slot = find.item().slot();
        return frame -> {
            var found = new ArrayList<>(Loops.asList(all.eval(frame)));
            if (!orders.isEmpty()) {
                sort(found, find, orders, slot, frame);
            }
            if (find.first()) {
                return found.isEmpty() ? Nothing.NULL : found.getFirst();
            }
            return take.eval(frame) instanceof Decimal most
                            && most.asInt().orElse(found.size()) < found.size()
                    ? new ArrayList<>(found.subList(0, Math.max(0, most.asInt().orElse(0))))
                    : found;
        };
    }

    /** What the store orders by, or nothing when it cannot order by that. */
    private static Optional<List<Selection.Order>> order(Term.Find find) {
        var order = new ArrayList<Selection.Order>();
        for (var one : find.orders()) {
            var path = Selections.orderPath(one.by(), find.item());
            if (path.isEmpty()) {
                return Optional.empty();
            }
            order.add(new Selection.Order(path.get(), one.descending()));
        }
        return Optional.of(order);
    }

    private static Op inStore(Term.Find find, Bound bound, List<Selection.Order> order, Op take) {
        return frame -> {
            int most = find.first() ? 1 : most(take.eval(frame));
            var selection = bound.bind(frame);
            var found =
                    selection == null || most == 0
                            ? List.of()
                            : counted(
                                    frame.run().records().select(selection.ordered(order, most)),
                                    frame);
            return find.first() ? (found.isEmpty() ? Nothing.NULL : found.getFirst()) : found;
        };
    }

    private static int most(Object take) {
        return take instanceof Decimal number ? Math.max(0, number.asInt().orElse(-1)) : -1;
    }

    /** Empty values come first, as in lists people look at. */
    private static void sort(
            List<Object> found, Term.Find find, List<Op> orders, int slot, Frame frame) {
        record Keyed(Object record, List<Object> keys) {}
        var keyed = new ArrayList<Keyed>(found.size());
        for (var record : found) {
            frame.set(slot, record);
            keyed.add(new Keyed(record, orders.stream().map(order -> order.eval(frame)).toList()));
        }
        keyed.sort((a, b) -> {
            for (int i = 0; i < orders.size(); i++) {
                int order = order(a.keys().get(i), b.keys().get(i));
                if (order != 0) {
                    return find.orders().get(i).descending() ? -order : order;
                }
            }
            return 0;
        });
        found.clear();
        keyed.forEach(one -> found.add(one.record()));
    }

    private static int order(Object a, Object b) {
        if (a == Nothing.NULL || b == Nothing.NULL) {
            return Boolean.compare(a != Nothing.NULL, b != Nothing.NULL);
        }
        var order = Values.order(a, b);
        return order == null ? 0 : order;
    }

    static Op aggregate(Term.Aggregate aggregate) {
        var total = Selections.total(aggregate);
        if (total.isPresent()) {
            var bound = Bound.of(total.get().selections());
            var wanted = total.get().total();
            Object zero = zero(aggregate);
            return frame -> {
                var selection = bound.bind(frame);
                var value =
                        selection == null
                                ? Nothing.NULL
                                : frame.run().records().total(selection, wanted);
                return value == Nothing.NULL ? zero : value;
            };
        }
        return inMemory(aggregate);
    }

    private static Op inMemory(Term.Aggregate aggregate) {
        var list = Compiler.op(aggregate.list());
        var function = aggregate.function();
        Object zero = zero(aggregate);
        return frame -> {
            var values = new ArrayList<Object>();
            for (var value : Loops.asList(list.eval(frame))) {
                if (value != Nothing.NULL) {
                    values.add(value);
                }
            }
            return values.isEmpty() && zero != Nothing.NULL
                    ? zero
                    : function.call(List.of(values), frame.run());
        };
    }

    /** What comes of no records at all: zero for a sum or count, otherwise null. */
    static Object zero(Term.Aggregate aggregate) {
        return switch (aggregate.function().name()) {
            case "count" -> Decimal.ZERO;
            case "sum" ->
                    aggregate.type() == LogicType.Simple.DURATION
                            ? Duration.ZERO
                            : aggregate.type() == LogicType.Simple.MONTHS
                                    ? new Months(0)
                                    : aggregate.type().isNumeric() ? Decimal.ZERO : Nothing.NULL;
            default -> Nothing.NULL;
        };
    }
}
