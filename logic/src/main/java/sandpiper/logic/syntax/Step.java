package sandpiper.logic.syntax;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Span;

/** One step of what a rule or function does. Immutable; {@link #span()} is where it was read. */
public sealed interface Step {
    Span span();

    /** {@code let x = e}. */
    record Let(String name, Span nameSpan, Expr value, Span span) implements Step {}

    /** {@code set path = e}. */
    record Set(Expr target, Expr value, Span span) implements Step {}

    /** One condition with the steps behind it. */
    record Branch(Expr condition, List<Step> steps) {
        public Branch {
            steps = List.copyOf(steps);
        }
    }

    /** {@code if ... then ... else if ... then ... else ... end}. */
    record If(List<Branch> branches, List<Step> otherwise, Span span) implements Step {
        public If {
            branches = List.copyOf(branches);
            otherwise = List.copyOf(otherwise);
        }
    }

    /**
     * {@code for each x in e ... end}.
     *
     * @param last where a run of whole numbers or days ends, as in {@code 1..3}; {@code null} for a
     *     list
     */
    record ForEach(
            String name, Span nameSpan, Expr list, @Nullable Expr last, List<Step> steps, Span span)
            implements Step {
        public ForEach {
            steps = List.copyOf(steps);
        }
    }

    /**
     * {@code create Object { ... } as x}, or a line item: {@code create charges { ... }}.
     *
     * @param as a name for the new record, or {@code null}
     */
    record Create(
            String object, Span objectSpan, List<Expr.Entry> values, @Nullable String as, Span span)
            implements Step {
        public Create {
            values = List.copyOf(values);
        }
    }

    /** {@code save Object by key { ... } as x}: creates or changes. */
    record Save(
            String object, Span objectSpan, List<Expr.Entry> values, @Nullable String as, Span span)
            implements Step {
        public Save {
            values = List.copyOf(values);
        }
    }

    /** {@code update x { ... }}. */
    record Update(Expr record, List<Expr.Entry> values, Span span) implements Step {
        public Update {
            values = List.copyOf(values);
        }
    }

    /** {@code retire x}. */
    record Retire(Expr record, Span span) implements Step {}

    /**
     * {@code transition name}, or {@code transition name of x}; {@code null} for the record itself.
     */
    record Transition(String name, Span nameSpan, @Nullable Expr record, Span span)
            implements Step {}

    /** {@code require c else reject "..." at field}; {@code null} condition for a plain reject. */
    record Reject(@Nullable Expr condition, Expr message, @Nullable Expr at, Span span)
            implements Step {}

    /** {@code warn "..." at field}. */
    record Warn(Expr message, @Nullable Expr at, Span span) implements Step {}

    /**
     * {@code call f(...) as x}, {@code call record.f(...)}, {@code call Object.f(...)}.
     *
     * @param target the call as an expression
     * @param as a name for what it gives back, or {@code null}
     */
    record Call(Expr target, @Nullable String as, Span span) implements Step {}

    /**
     * {@code emit Event { ... } about x}.
     *
     * @param about the record it is about; {@code null} for the one at hand
     */
    record Emit(
            String event, Span eventSpan, List<Expr.Entry> values, @Nullable Expr about, Span span)
            implements Step {
        public Emit {
            values = List.copyOf(values);
        }
    }

    /** {@code return e}; {@code null} for nothing. */
    record Return(@Nullable Expr value, Span span) implements Step {}

    /** {@code note e}. */
    record Note(Expr value, Span span) implements Step {}
}
