package sandpiper.logic.check;

import java.util.Objects;
import sandpiper.logic.LogicCode;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.LogicType.Simple;

/** Checks that a value fits into what it goes into: a field, a parameter, what is given back. */
final class Assignments {
    private final Checking checking;
    private final Comparisons comparisons;

    Assignments(Checking checking, Comparisons comparisons) {
        this.checking = checking;
        this.comparisons = comparisons;
    }

    /**
     * The value as it goes in.
     *
     * @param name of what it goes into, for choices that have no such code
     */
    Term assigned(Term given, LogicType wanted, String name) {
        if (given instanceof Term.If(var condition, var then, var otherwise, var type, var span)) {
            // Whichever way it goes, what comes of it must fit.
            return new Term.If(
                    condition,
                    assigned(then, wanted, name),
                    assigned(otherwise, wanted, name),
                    type,
                    span);
        }
        var term = comparisons.percentAsWritten(given, wanted);
        var type = term.type();
        if (!fits(type, wanted) && NameResolver.isUncalled(term, checking)) {
            return NameResolver.nothing(term.span());
        }
        if (!fits(type, wanted)) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    term.span(),
                    "This must be %s, but is %s.".formatted(wanted.described(), type.described()));
            return NameResolver.nothing(term.span());
        }
        if ((type == Simple.PERCENT && wanted instanceof LogicType.AmountOf)
                || (type instanceof LogicType.AmountOf && wanted == Simple.PERCENT)) {
            checking.error(
                    LogicCode.MIXED_UNITS,
                    term.span(),
                    "This must be %s, but is %s.".formatted(wanted.described(), type.described()));
        }
        if (wanted instanceof LogicType.ChoiceOf) {
            comparisons.checkChoice(new Term.Local(-1, name, wanted, term.span()), term);
        }
        if (wanted instanceof LogicType.AmountOf(var to)
                && type instanceof LogicType.AmountOf(var from)
                && to != null
                && from != null
                && !Objects.equals(to, from)) {
            checking.error(
                    LogicCode.MIXED_CURRENCIES,
                    term.span(),
                    "This is an amount in %s, but goes into one in %s.".formatted(from, to));
        }
        return term;
    }

    /** An argument for a parameter that says what it takes. */
    void expectArgument(Term term, LogicType wanted) {
        var type = term.type();
        boolean single =
                (type instanceof LogicType.ListOf(var item) && fits(item, wanted))
                        || (wanted instanceof LogicType.ListOf(var of) && fits(type, of));
        if (!fits(type, wanted) && !single) {
            checking.error(
                    LogicCode.WRONG_ARGUMENTS,
                    term.span(),
                    "This parameter takes %s, but here is %s."
                            .formatted(wanted.described(), type.described()));
        }
    }

    private static boolean fits(LogicType type, LogicType wanted) {
        if (type.isOpen() || wanted.isOpen() || type.equals(wanted)) {
            return true;
        }
        if (wanted instanceof RecordOf(var to)) {
            return type.isTextual()
                    || (type instanceof RecordOf(var from) && from.name().equals(to.name()));
        }
        if (wanted instanceof LogicType.ListOf(var to)
                && type instanceof LogicType.ListOf(var of)) {
            return fits(of, to);
        }
        if (wanted instanceof LogicType.ContextOf(var to)
                && type instanceof LogicType.ContextOf(var of)) {
            return to == null
                    || of == null
                    || of.entrySet().stream()
                            .allMatch(entry ->
                                    to.containsKey(entry.getKey())
                                            && fits(entry.getValue(), to.get(entry.getKey())));
        }
        if (wanted == Simple.DATE || wanted == Simple.DATE_TIME) {
            return type == Simple.DATE || type == Simple.DATE_TIME;
        }
        return (wanted.isTextual() && (type.isTextual() || type instanceof RecordOf))
                || (wanted.isNumeric() && type.isNumeric());
    }
}
