package sandpiper.logic.run;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.Range;

/** What runs over lists: {@code for}, {@code some}, {@code every}, filters and projections. */
final class Loops {
    private Loops() {}

    /** A compiled {@link Term.Source}. */
    record Source(int slot, Op domain, @Nullable Op end) {
        static Source of(Term.Source source) {
            var end = source.end();
            return new Source(
                    source.item().slot(),
                    Compiler.op(source.domain()),
                    end == null ? null : Compiler.op(end));
        }

        /** The items, or {@code null} when there is nothing to run over. */
        @Nullable List<Object> items(Frame frame) {
            var from = domain.eval(frame);
            if (end != null) {
                return run(from, end.eval(frame), frame.run());
            }
            if (from instanceof Range range) {
                return Loops.items(range, frame.run());
            }
            return from == Nothing.NULL ? null : asList(from);
        }
    }

    private static @Nullable List<Object> items(Range range, Evaluation run) {
        var all = run(range.start(), range.end(), run);
        if (all == null) {
            return null;
        }
        int from = range.startIncluded() || all.isEmpty() ? 0 : 1;
        int to = range.endIncluded() || all.isEmpty() ? all.size() : all.size() - 1;
        return from > to ? List.of() : all.subList(from, to);
    }

    /** Whole numbers or days from one to another, both included, up or down. */
    private static @Nullable List<Object> run(Object from, Object to, Evaluation run) {
        if (from instanceof LocalDate first && to instanceof LocalDate last) {
            return days(first, last, run);
        }
        if (!(from instanceof Decimal first)
                || !(to instanceof Decimal last)
                || !first.isWhole()
                || !last.isWhole()) {
            run.note("A loop runs between two whole numbers or two dates.");
            return null;
        }
        long size =
                Math.min(
                        Long.MAX_VALUE / 2,
                        last.big()
                                .subtract(first.big())
                                .abs()
                                .min(java.math.BigDecimal.valueOf(Long.MAX_VALUE / 2))
                                .longValue());
        run.checkItems(size);
        boolean up = first.compareTo(last) <= 0;
        var items = new ArrayList<Object>((int) size + 1);
        Object at = first;
        for (long i = 0; i <= size && at instanceof Decimal number; i++) {
            items.add(number);
            at = up ? number.plus(Decimal.ONE) : number.minus(Decimal.ONE);
        }
        return items;
    }

    private static List<Object> days(LocalDate first, LocalDate last, Evaluation run) {
        long size = Math.abs(last.toEpochDay() - first.toEpochDay());
        run.checkItems(size);
        int step = first.isAfter(last) ? -1 : 1;
        var items = new ArrayList<Object>((int) size + 1);
        for (long i = 0; i <= size; i++) {
            items.add(first.plusDays(step * i));
        }
        return items;
    }

    /** A list as it is; anything else as a list of one; null as a list of none. */
    @SuppressWarnings("unchecked") // lists in values hold nothing but values
    static List<Object> asList(Object value) {
        if (value instanceof List<?> list) {
            return (List<Object>) list;
        }
        return value == Nothing.NULL ? List.of() : List.of(value);
    }

    static Op loop(Term.For loop) {
        var sources = loop.sources().stream().map(Source::of).toList();
        var result = Compiler.op(loop.result());
        int partial = loop.partial().slot();
        boolean usesPartial = Terms.uses(loop.result(), loop.partial());
        return frame -> {
            var results = new ArrayList<Object>();
            if (usesPartial) {
                frame.set(partial, results);
            }
            boolean known =
                    each(
                            sources,
                            0,
                            frame,
                            () -> {
                                if (usesPartial) {
                                    // What was there before, unchanged by what comes.
                                    frame.set(partial, new ArrayList<>(results));
                                    frame.run().spend(results.size());
                                }
                                results.add(result.eval(frame));
                                frame.run().checkItems(results.size());
                                return true;
                            });
            return known ? results : Nothing.NULL;
        };
    }

    private interface Body {
        /** Whether to go on. */
        boolean run();
    }

    /** Runs a body for each combination; false when there was nothing to run over. */
    private static boolean each(List<Source> sources, int at, Frame frame, Body body) {
        if (at == sources.size()) {
            frame.run().spend(1);
            body.run();
            return true;
        }
        var items = sources.get(at).items(frame);
        if (items == null) {
            return false;
        }
        for (var item : items) {
            frame.set(sources.get(at).slot(), item);
            if (!each(sources, at + 1, frame, body)) {
                return false;
            }
        }
        return true;
    }

    static Op quantified(Term.Quantified quantified) {
        var sources = quantified.sources().stream().map(Source::of).toList();
        var condition = Compiler.op(quantified.condition());
        boolean decisive = !quantified.isEvery();
        return frame -> {
            var result = new Object[] {!decisive};
            boolean known =
                    each(
                            sources,
                            0,
                            frame,
                            () -> {
                                if (result[0] instanceof Boolean sofar && sofar == decisive) {
                                    return false;
                                }
                                var holds = condition.eval(frame);
                                if (holds instanceof Boolean flag) {
                                    if (flag == decisive) {
                                        result[0] = decisive;
                                    }
                                } else {
                                    result[0] = Nothing.NULL;
                                }
                                return true;
                            });
            return known ? result[0] : Nothing.NULL;
        };
    }

    static Op filter(Term.Filter filter) {
        var source = Compiler.op(filter.source());
        var condition = Compiler.op(filter.condition());
        int slot = filter.item().slot();
        if (filter.condition().type().isNumeric()
                && !Terms.uses(filter.condition(), filter.item())) {
            return frame -> {
                var list = asList(source.eval(frame));
                return condition.eval(frame) instanceof Decimal place
                        ? item(list, place, frame.run())
                        : Nothing.NULL;
            };
        }
        return frame -> {
            var list = asList(source.eval(frame));
            frame.run().spend(list.size() + 1);
            if (list.isEmpty()) {
                return List.of();
            }
            var kept = new ArrayList<Object>();
            for (var item : list) {
                frame.set(slot, item);
                var holds = condition.eval(frame);
                if (holds instanceof Decimal place) {
                    return item(list, place, frame.run());
                }
                if (holds == Boolean.TRUE) {
                    kept.add(item);
                }
            }
            return kept;
        };
    }

    private static Object item(List<Object> list, Decimal place, Evaluation run) {
        int position = place.asInt().orElse(0);
        int index = position > 0 ? position - 1 : list.size() + position;
        if (position == 0 || index < 0 || index >= list.size()) {
            run.note("The list has no place %s.".formatted(place));
            return Nothing.NULL;
        }
        return list.get(index);
    }

    static Op project(Term.Project project) {
        var source = Compiler.op(project.source());
        var value = Compiler.op(project.value());
        int slot = project.item().slot();
        return frame -> {
            var list = asList(source.eval(frame));
            frame.run().spend(list.size());
            var values = new ArrayList<Object>(list.size());
            for (var item : list) {
                frame.set(slot, item);
                var one = value.eval(frame);
                if (one instanceof List<?> inner) {
                    values.addAll(inner);
                } else {
                    values.add(one);
                }
            }
            return values;
        };
    }
}
