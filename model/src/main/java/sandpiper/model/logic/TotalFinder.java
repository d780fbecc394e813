package sandpiper.model.logic;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.condition.Selections;
import sandpiper.logic.run.Code;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.term.Term;
import sandpiper.logic.term.Terms;
import sandpiper.logic.type.Member;
import sandpiper.model.release.Field;
import sandpiper.model.release.ModelMember;
import sandpiper.model.release.ObjectRecordType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;

/**
 * Finds formulas that are nothing but a total over records elsewhere, and so can be kept by
 * difference.
 */
final class TotalFinder {
    private final Release release;
    private final CheckedTerm checked;
    private final Set<RunningTotal.Other> others = new HashSet<>();

    private TotalFinder(Release release, CheckedTerm checked) {
        this.release = release;
        this.checked = checked;
    }

    static Optional<RunningTotal> find(Release release, Field field, CheckedTerm checked) {
        return new TotalFinder(release, checked).find(field);
    }

    /**
     * A total that a formula reads besides other things. It cannot be kept by itself, but tells
     * whether a changed record makes any difference to the formula.
     */
    static Optional<RunningTotal> within(
            Release release, CheckedTerm checked, Term.Aggregate aggregate) {
        return new TotalFinder(release, checked).find(aggregate, null);
    }

    private Optional<RunningTotal> find(Field field) {
        return checked.term() instanceof Term.Aggregate aggregate
                ? find(aggregate, field)
                : Optional.empty();
    }

    /** Takes the field that is to hold the total, or {@code null} when none does. */
    private Optional<RunningTotal> find(Term.Aggregate aggregate, @Nullable Field field) {
        var total = Selections.total(aggregate);
        if (total.isEmpty()
                || !(total.get().selections().owner() instanceof Term.Local owner)
                || owner.slot() != NameContext.THIS
                || !(total.get().selections().records() instanceof ObjectRecordType items)) {
            return Optional.empty();
        }
        var selections = total.get().selections();
        var path = path(items.object(), selections.path());
        var conditions = new ArrayList<RunningTotal.Condition>();
        for (var clause : selections.clauses()) {
            if (readsOwner(clause.condition())
                    || readsMany(clause.condition())
                    || Terms.dependsOnClock(clause.condition())) {
                return Optional.empty();
            }
            noteOthers(clause.condition());
            var prefix = path(items.object(), clause.prefix());
            notePath(prefix);
            if (!prefix.isEmpty()) {
                noteItem(prefix.getLast(), clause);
            }
            conditions.add(
                    new RunningTotal.Condition(
                            Compiler.compile(clause.condition(), checked.slots()),
                            clause.item().slot(),
                            prefix));
        }
        notePath(path);
        var value = value(items.object(), total.get().total().value());
        if (field != null
                && value != null
                && !isExact(field, value.last(), total.get().total().function())) {
            return Optional.empty();
        }
        var code = value == null ? null : valueCode(aggregate.list());
        if ((value == null) != (code == null)) {
            return Optional.empty();
        }
        return Optional.of(
                new RunningTotal(
                        total.get().total().function(),
                        items.object(),
                        path,
                        conditions,
                        code == null ? null : code.code(),
                        code == null ? -1 : code.slot(),
                        others));
    }

    private static boolean readsOwner(Term term) {
        return Terms.any(
                term,
                one ->
                        one instanceof Term.Local local
                                && (local.slot() == NameContext.THIS
                                        || local.slot() == NameContext.OWNER));
    }

    /** Whether a condition asks for other records; what they come to is not kept by difference. */
    private static boolean readsMany(Term term) {
        return Terms.any(
                term,
                one ->
                        one instanceof Term.Read read
                                && read.member() instanceof ModelMember.Related);
    }

    private static String fieldOf(Member member) {
        return member instanceof ModelMember.OfLanguage(var of, _) ? of.name() : member.name();
    }

    /** What a condition reads of other records than the item. */
    private void noteOthers(Term term) {
        Terms.walk(
                term,
                one -> {
                    if (one instanceof Term.Read(Term.Read inner, var member, _)
                            && inner.member() instanceof ModelMember.OfField(_, var field, _, _)
                            && field.type() instanceof FieldType.Reference reference) {
                        others.add(new RunningTotal.Other(reference.to(), fieldOf(member)));
                    }
                });
    }

    /** What a condition reads of a record that a reference leads to from the item. */
    private void noteItem(Field reference, Selections.Clause clause) {
        if (reference.type() instanceof FieldType.Reference(var to, _)) {
            Terms.walk(
                    clause.condition(),
                    one -> {
                        if (one instanceof Term.Read(Term.Local local, var member, _)
                                && local.slot() == clause.item().slot()) {
                            others.add(new RunningTotal.Other(to, fieldOf(member)));
                        }
                    });
        }
    }

    /** The fields behind the first of a path stand on other records than the item. */
    private void notePath(List<Field> path) {
        for (int i = 1; i < path.size(); i++) {
            if (path.get(i - 1).type() instanceof FieldType.Reference(var to, _)) {
                others.add(new RunningTotal.Other(to, path.get(i).name()));
            }
        }
    }

    private List<Field> path(ObjectType from, List<String> names) {
        var fields = new ArrayList<Field>();
        var at = from;
        for (var name : names) {
            var field = at.fields().get(name);
            fields.add(field);
            at =
                    field.type() instanceof FieldType.Reference reference
                            ? release.target(reference)
                            : at;
        }
        return fields;
    }

    private record Value(Field last) {}

    private @Nullable Value value(ObjectType from, List<String> names) {
        if (names.isEmpty()) {
            return null;
        }
        var fields = path(from, names);
        notePath(fields);
        return new Value(fields.getLast());
    }

    /**
     * Whether what is added needs no rounding: many additions then make no mistake, and the highest
     * of all is known again when it leaves.
     */
    private static boolean isExact(Field field, Field value, String function) {
        if (function.equals("count")) {
            return true;
        }
        if (field.type() instanceof NumberType to && value.type() instanceof NumberType from) {
            return (to.keyword() == from.keyword() || noPercent(to, from))
                    && to.scale() >= from.scale();
        }
        return value.type().keyword() == field.type().keyword();
    }

    private static boolean noPercent(NumberType to, NumberType from) {
        return to.keyword() != sandpiper.model.type.TypeKeyword.PERCENT
                && from.keyword() != sandpiper.model.type.TypeKeyword.PERCENT;
    }

    private record ValueCode(Code code, int slot) {}

    /** What an item adds, as code about the innermost item. */
    private @Nullable ValueCode valueCode(Term list) {
        var layers = new ArrayList<Term.Project>();
        Term at = list;
        while (at instanceof Term.Project project
                && !(project.value() instanceof Term.Read(_, var member, _)
                        && member.reference() != null)) {
            layers.addFirst(project);
            at = project.source();
        }
        if (layers.isEmpty()) {
            return null;
        }
        // vessel.shorePower comes as two layers; the second reads from what the first comes to.
        Term value = layers.getFirst().value();
        for (int i = 1; i < layers.size(); i++) {
            var joined = replaced(layers.get(i).value(), layers.get(i).item(), value);
            if (joined == null) {
                return null;
            }
            value = joined;
        }
        return new ValueCode(
                Compiler.compile(value, checked.slots()), layers.getFirst().item().slot());
    }

    /** A path with its beginning replaced. */
    private static @Nullable Term replaced(Term path, Term.Local item, Term by) {
        return switch (path) {
            case Term.Local local when local.slot() == item.slot() -> by;
            case Term.Read(var source, var member, var span) -> {
                var inner = replaced(source, item, by);
                yield inner == null ? null : new Term.Read(inner, member, span);
            }
            default -> null;
        };
    }
}
