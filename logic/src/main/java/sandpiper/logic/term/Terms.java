package sandpiper.logic.term;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Walks typed trees. */
public final class Terms {
    private Terms() {}

    /** The terms directly inside a term, in the order of the text. */
    public static List<Term> children(Term term) {
        var children = new ArrayList<@Nullable Term>();
        switch (term) {
            case Term.Constant _, Term.Local _, Term.Records _, Term.BuiltinValue _ -> {
                // leaves
            }
            case Term.Lookup lookup -> {
                children.addAll(lookup.items());
                children.add(lookup.otherwise());
            }
            case Term.Read read -> children.add(read.source());
            case Term.Property property -> children.add(property.source());
            case Term.Project project -> {
                children.add(project.source());
                children.add(project.value());
            }
            case Term.Negate negate -> children.add(negate.operand());
            case Term.Arithmetic arithmetic -> {
                children.add(arithmetic.left());
                children.add(arithmetic.right());
            }
            case Term.Compare compare -> {
                children.add(compare.left());
                children.add(compare.right());
            }
            case Term.Logical logical -> children.addAll(logical.parts());
            case Term.Within within -> {
                children.add(within.value());
                children.addAll(within.tests());
            }
            case Term.Matches matches -> {
                children.add(matches.value());
                children.add(matches.test());
            }
            case Term.Differs differs -> {
                children.add(differs.left());
                children.add(differs.right());
            }
            case Term.If choice -> {
                children.add(choice.condition());
                children.add(choice.then());
                children.add(choice.otherwise());
            }
            case Term.For loop -> {
                sources(loop.sources(), children);
                children.add(loop.result());
            }
            case Term.Quantified quantified -> {
                sources(quantified.sources(), children);
                children.add(quantified.condition());
            }
            case Term.Filter filter -> {
                children.add(filter.source());
                children.add(filter.condition());
            }
            case Term.ListOf list -> children.addAll(list.items());
            case Term.ContextOf context ->
                    context.entries().forEach(entry -> children.add(entry.value()));
            case Term.RangeOf range -> {
                children.add(range.start());
                children.add(range.end());
            }
            case Term.Call call -> children.addAll(call.arguments());
            case Term.Aggregate aggregate -> children.add(aggregate.list());
            case Term.Invoke invoke -> {
                children.add(invoke.function());
                children.addAll(invoke.arguments());
            }
            case Term.FunctionOf function -> children.add(function.body());
            case Term.InstanceOf instance -> children.add(instance.value());
            case Term.Find find -> {
                children.add(find.where());
                find.orders().forEach(order -> children.add(order.by()));
                children.add(find.take());
            }
            case Term.Template template -> children.addAll(template.parts());
        }
        var present = new ArrayList<Term>(children.size());
        for (var child : children) {
            if (child != null) {
                present.add(child);
            }
        }
        return present;
    }

    private static void sources(List<Term.Source> sources, List<@Nullable Term> into) {
        for (var source : sources) {
            into.add(source.domain());
            into.add(source.end());
        }
    }

    /** Visits a term and all below it, outer ones first. */
    public static void walk(Term term, Consumer<Term> visitor) {
        visitor.accept(term);
        children(term).forEach(child -> walk(child, visitor));
    }

    /** Whether a term or one below it is so. */
    public static boolean any(Term term, java.util.function.Predicate<Term> test) {
        return test.test(term) || children(term).stream().anyMatch(child -> any(child, test));
    }

    /** Whether the value depends on when it is asked for. */
    public static boolean dependsOnClock(Term term) {
        return any(
                term,
                one ->
                        one instanceof Term.Call call
                                && (call.function().name().equals("today")
                                        || call.function().name().equals("now")));
    }

    /** Whether a term reads a local name. */
    public static boolean uses(Term term, Term.Local local) {
        return any(term, one -> one instanceof Term.Local other && other.slot() == local.slot());
    }

    /** Whether two terms are the same path from the same place, or the same constant. */
    public static boolean same(Term a, Term b) {
        return switch (a) {
            case Term.Local x when b instanceof Term.Local y -> x.slot() == y.slot();
            case Term.Read x when b instanceof Term.Read y ->
                    x.member().name().equals(y.member().name()) && same(x.source(), y.source());
            case Term.Property x when b instanceof Term.Property y ->
                    x.name().equals(y.name()) && same(x.source(), y.source());
            case Term.Constant x when b instanceof Term.Constant y ->
                    sandpiper.logic.value.Values.same(x.value(), y.value());
            default -> false;
        };
    }
}
