package sandpiper.logic.term;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Span;
import sandpiper.logic.type.EventShape;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.OutsideService.OutsideFunction;
import sandpiper.logic.type.RecordType;

/** A step whose names are known and whose types fit. Immutable. */
public sealed interface Act {
    Span span();

    /** Puts a value under a name. */
    record Let(Term.Local local, Term value, Span span) implements Act {}

    /** Sets a field of a record. */
    record Set(Term record, Member member, Term value, Span span) implements Act {}

    record Branch(Term condition, List<Act> acts) {}

    record If(List<Branch> branches, List<Act> otherwise, Span span) implements Act {}

    /**
     * Repeats.
     *
     * @param source what it runs over, with the name of each
     */
    record ForEach(Term.Source source, List<Act> acts, Span span) implements Act {}

    /** A value for a field. */
    record Assign(Member member, Term value) {}

    /**
     * Makes a record.
     *
     * @param as where it can be named afterwards, or {@code null}
     */
    record Create(RecordType object, List<Assign> values, Term.@Nullable Local as, Span span)
            implements Act {}

    /** Adds a line item to a part of a record. */
    record AddItem(
            Term record, Member part, List<Assign> values, Term.@Nullable Local as, Span span)
            implements Act {}

    /** Makes a record, or changes the one that has the key. */
    record Save(RecordType object, List<Assign> values, Term.@Nullable Local as, Span span)
            implements Act {}

    record Update(Term record, List<Assign> values, Span span) implements Act {}

    record Retire(Term record, Span span) implements Act {}

    record Transition(Term record, String name, Span span) implements Act {}

    /**
     * Stops with a message.
     *
     * @param condition that keeps it from stopping, or {@code null} to stop always
     * @param at the field the message is about, from the record on; empty for the record itself
     */
    record Reject(@Nullable Term condition, Term message, List<String> at, Span span)
            implements Act {}

    record Warn(Term message, List<String> at, Span span) implements Act {}

    record Note(Term value, Span span) implements Act {}

    /**
     * Calls a function.
     *
     * @param record on which it is called, or {@code null} for one of the object as a whole
     * @param arguments in the order of the parameters; {@code null} for one that is left out
     * @param as where what it gives back can be named, or {@code null}
     */
    record Call(
            RecordType object,
            FunctionType function,
            @Nullable Term record,
            List<@Nullable Term> arguments,
            Term.@Nullable Local as,
            Span span)
            implements Act {}

    /**
     * Asks an outside service.
     *
     * @param arguments in the order of the parameters; {@code null} for one that is left out
     * @param as where the answer can be named, or {@code null}
     */
    record Ask(
            OutsideFunction function,
            List<@Nullable Term> arguments,
            Term.@Nullable Local as,
            Span span)
            implements Act {}

    /** A value that an event tells. */
    record Told(String name, Term value) {}

    /**
     * Raises an event.
     *
     * @param about the record it is about, or {@code null} when it is about none
     */
    record Emit(EventShape event, List<Told> values, @Nullable Term about, Span span)
            implements Act {}

    /** Ends a function with what it gives back, {@code null} for nothing. */
    record Return(@Nullable Term value, Span span) implements Act {}

    /** Visits all terms in acts, inner acts included. */
    static void terms(List<Act> acts, java.util.function.Consumer<Term> visitor) {
        for (var act : acts) {
            switch (act) {
                case Let let -> visitor.accept(let.value());
                case Set set -> {
                    visitor.accept(set.record());
                    visitor.accept(set.value());
                }
                case If choice -> {
                    for (var branch : choice.branches()) {
                        visitor.accept(branch.condition());
                        terms(branch.acts(), visitor);
                    }
                    terms(choice.otherwise(), visitor);
                }
                case ForEach loop -> {
                    visitor.accept(loop.source().domain());
                    if (loop.source().end() != null) {
                        visitor.accept(loop.source().end());
                    }
                    terms(loop.acts(), visitor);
                }
                case Create create -> values(create.values(), visitor);
                case AddItem add -> {
                    visitor.accept(add.record());
                    values(add.values(), visitor);
                }
                case Save save -> values(save.values(), visitor);
                case Update update -> {
                    visitor.accept(update.record());
                    values(update.values(), visitor);
                }
                case Retire retire -> visitor.accept(retire.record());
                case Transition transition -> visitor.accept(transition.record());
                case Reject reject -> {
                    if (reject.condition() != null) {
                        visitor.accept(reject.condition());
                    }
                    visitor.accept(reject.message());
                }
                case Warn warn -> visitor.accept(warn.message());
                case Note note -> visitor.accept(note.value());
                case Call call -> {
                    if (call.record() != null) {
                        visitor.accept(call.record());
                    }
                    given(call.arguments(), visitor);
                }
                case Ask ask -> given(ask.arguments(), visitor);
                case Emit emit -> {
                    emit.values().forEach(told -> visitor.accept(told.value()));
                    if (emit.about() != null) {
                        visitor.accept(emit.about());
                    }
                }
                case Return end -> {
                    if (end.value() != null) {
                        visitor.accept(end.value());
                    }
                }
            }
        }
    }

    private static void given(
            List<@Nullable Term> arguments, java.util.function.Consumer<Term> visitor) {
        for (var argument : arguments) {
            if (argument != null) {
                visitor.accept(argument);
            }
        }
    }

    private static void values(List<Assign> values, java.util.function.Consumer<Term> visitor) {
        values.forEach(assign -> visitor.accept(assign.value()));
    }
}
