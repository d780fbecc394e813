package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.Step;
import sandpiper.logic.term.Act;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;

/** Checks the steps that change records: set, create, save, update, retire and transitions. */
final class RecordSteps {
    private final Checking checking;
    private final Expressions expressions;
    private final LocalNames names;

    RecordSteps(Checking checking, Expressions expressions, LocalNames names) {
        this.checking = checking;
        this.expressions = expressions;
        this.names = names;
    }

    @Nullable Act set(Step.Set set, Scope scope) {
        var target = expressions.term(set.target(), scope);
        if (!(target instanceof Term.Read read)) {
            expressions.term(set.value(), scope);
            if (!isReported(target)) {
                checking.error(
                        LogicCode.NOT_ASSIGNABLE,
                        target.span(),
                        "Only a field of a record can be set, as in set state = \"Open\".");
            }
            return null;
        }
        var place = set.target() instanceof Expr.Path path ? path.memberSpan() : target.span();
        var value = assigned(read.member(), set.value(), scope, place);
        return new Act.Set(read.source(), read.member(), value, set.span());
    }

    /** Whether a term stands for something that was not found, which is reported already. */
    static boolean isReported(Term term) {
        return term instanceof Term.Constant constant && !constant.literal();
    }

    private Term assigned(Member member, Expr value, Scope scope, Span span) {
        var reason = member.fixed();
        if (reason != null) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    span,
                    "%s %s and cannot be set.".formatted(member.name(), reason));
        }
        if (isList(member)) {
            return items(member, value, scope);
        }
        return expressions.assigned(value, scope, member.type(), member.name());
    }

    private static boolean isList(Member member) {
        return member.type() instanceof LogicType.ListOf;
    }

    /** Line items written as a list of contexts. */
    private Term items(Member part, Expr value, Scope scope) {
        var term = expressions.term(value, scope);
        var item = term.type().itemType();
        if (!item.isOpen() && !(item instanceof LogicType.ContextOf)) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    term.span(),
                    "%s takes line items, as in [{ quantity: 1 }], but this is %s."
                            .formatted(part.name(), term.type().described()));
        } else if (item instanceof LogicType.ContextOf(var entries)
                && entries != null
                && part.type().itemType() instanceof RecordOf(var record)) {
            for (var name : entries.keySet()) {
                member(record, name, term.span());
            }
        }
        return term;
    }

    @Nullable Act create(Step.Create create, Scope scope) {
        var part = part(create.object(), scope);
        if (part.isPresent()) {
            var read = part.get();
            var record = ((RecordOf) read.type().itemType()).record();
            var values = values(record, create.values(), scope);
            requireAll(record, create, values);
            var as = as(create.as(), record, create.span(), scope);
            return new Act.AddItem(read.source(), read.member(), values, as, create.span());
        }
        var object = object(create.object(), create.objectSpan());
        if (object == null) {
            names.unknown(create.as(), create.span(), scope);
            return null;
        }
        var values = values(object, create.values(), scope);
        requireAll(object, create, values);
        return new Act.Create(
                object, values, as(create.as(), object, create.span(), scope), create.span());
    }

    /** What must have a value and gets it in no other way can only be given here. */
    private void requireAll(RecordType record, Step.Create create, List<Act.Assign> values) {
        var given = new HashSet<String>();
        values.forEach(value -> given.add(value.member().name()));
        create.values().forEach(entry -> given.add(entry.name()));
        var missing =
                record.memberNames().stream()
                        .filter(name ->
                                record.member(name)
                                        .filter(member -> member.mustBeGiven(given))
                                        .isPresent())
                        .filter(name -> !given.contains(name))
                        .toList();
        if (!missing.isEmpty()) {
            checking.warn(
                    LogicCode.NEEDS_VALUE,
                    create.objectSpan(),
                    "%s needs %s; without %s nothing is created, unless it is set before the end."
                            .formatted(
                                    record.name(),
                                    String.join(", ", missing),
                                    missing.size() == 1 ? "it" : "them"),
                    null);
        }
    }

    /** The part of the record that a name stands for, if it does. */
    private Optional<Term.Read> part(String name, Scope from) {
        for (Scope scope = from; scope != null; scope = scope.outer()) {
            var item = scope.item();
            var record = scope.record();
            if (item == null || record == null) {
                continue;
            }
            var member = record.member(name);
            if (member.isPresent() && isList(member.get()) && member.get().reference() == null) {
                return Optional.of(new Term.Read(item, member.get(), item.span()));
            }
        }
        return Optional.empty();
    }

    private Term.@Nullable Local as(
            @Nullable String name, RecordType object, Span span, Scope scope) {
        return name == null ? null : names.named(name, span, new RecordOf(object), scope);
    }

    private @Nullable RecordType object(String name, Span span) {
        var found = checking.world().object(name);
        if (found.isEmpty()) {
            checking.error(
                    LogicCode.UNKNOWN_NAME,
                    span,
                    "There is no object %s.".formatted(Quoted.of(name)),
                    Nearest.to(name, checking.world().objectNames()).orElse(null));
        }
        return found.orElse(null);
    }

    @Nullable Act save(Step.Save save, Scope scope) {
        var object = object(save.object(), save.objectSpan());
        if (object == null) {
            names.unknown(save.as(), save.span(), scope);
            return null;
        }
        var values = values(object, save.values(), scope);
        var key = object.keyMember();
        boolean hasKey =
                key.isEmpty()
                        || values.stream()
                                .anyMatch(value -> value.member().name().equals(key.get()));
        if (!hasKey) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    save.objectSpan(),
                    "To save by key, %s needs its key %s among the values."
                            .formatted(object.name(), key.get()));
        }
        return new Act.Save(object, values, as(save.as(), object, save.span(), scope), save.span());
    }

    private List<Act.Assign> values(RecordType record, List<Expr.Entry> entries, Scope scope) {
        var values = new ArrayList<Act.Assign>();
        for (var entry : entries) {
            var member = member(record, entry.name(), entry.nameSpan());
            if (member == null) {
                expressions.term(entry.value(), scope);
            } else {
                values.add(
                        new Act.Assign(
                                member, assigned(member, entry.value(), scope, entry.nameSpan())));
            }
        }
        return values;
    }

    private @Nullable Member member(RecordType record, String name, Span span) {
        var member = record.member(name);
        if (member.isEmpty() || member.get().reference() != null) {
            checking.error(
                    LogicCode.UNKNOWN_MEMBER,
                    span,
                    "%s has no field %s.".formatted(record.name(), Quoted.of(name)),
                    Nearest.to(name, record.memberNames()).orElse(null));
            return null;
        }
        return member.get();
    }

    @Nullable Act update(Step.Update update, Scope scope) {
        var record = expressions.term(update.record(), scope);
        if (!(record.type() instanceof RecordOf(var type))) {
            notARecord(record);
            return null;
        }
        return new Act.Update(record, values(type, update.values(), scope), update.span());
    }

    private void notARecord(Term term) {
        if (!isReported(term)) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    term.span(),
                    "This must be a record, but is %s.".formatted(term.type().described()));
        }
    }

    @Nullable Act retire(Step.Retire retire, Scope scope) {
        var record = expressions.term(retire.record(), scope);
        if (!(record.type() instanceof RecordOf)) {
            notARecord(record);
            return null;
        }
        return new Act.Retire(record, retire.span());
    }

    @Nullable Act transition(Step.Transition transition, Scope scope) {
        var written = transition.record();
        var record =
                written == null
                        ? expressions.term(new Expr.Name("this", transition.span()), scope)
                        : expressions.term(written, scope);
        if (!(record.type() instanceof RecordOf(var type))) {
            notARecord(record);
            return null;
        }
        if (!type.transitions().contains(transition.name())) {
            checking.error(
                    LogicCode.UNKNOWN_TRANSITION,
                    transition.nameSpan(),
                    type.transitions().isEmpty()
                            ? "%s has no lifecycle.".formatted(type.name())
                            : "%s has no transition %s; it has %s."
                                    .formatted(
                                            type.name(),
                                            Quoted.of(transition.name()),
                                            String.join(", ", type.transitions())),
                    Nearest.to(transition.name(), type.transitions()).orElse(null));
        }
        return new Act.Transition(record, transition.name(), transition.span());
    }
}
