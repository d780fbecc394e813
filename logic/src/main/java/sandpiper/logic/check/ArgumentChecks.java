package sandpiper.logic.check;

import java.util.List;
import java.util.Set;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Quoted;
import sandpiper.logic.function.Builtin;
import sandpiper.logic.function.Overload;
import sandpiper.logic.function.ParameterKind;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.TemporalText;

/** Looks whether what is given to a built-in function can mean something. */
final class ArgumentChecks {
    private static final Set<String> EXTREMES = Set.of("min", "max");

    private final Checking checking;

    ArgumentChecks(Checking checking) {
        this.checking = checking;
    }

    /** Tells of arguments that a form takes by their kind, but could never use. */
    void check(Builtin builtin, Overload form, List<Term> terms) {
        text(builtin, terms);
        functions(builtin, form, terms);
        kinds(builtin, terms);
    }

    /** The highest of values that have no order between them is never known. */
    private void kinds(Builtin builtin, List<Term> terms) {
        if (EXTREMES.contains(builtin.name())) {
            for (int i = 1; i < terms.size(); i++) {
                if (!Comparisons.comparable(terms.getFirst().type(), terms.get(i).type())) {
                    checking.error(
                            LogicCode.WRONG_ARGUMENTS,
                            terms.get(i).span(),
                            "%s compares its values, but here are %s and %s."
                                    .formatted(
                                            builtin.name(),
                                            terms.getFirst().type().described(),
                                            terms.get(i).type().described()));
                    return;
                }
            }
        }
        if (builtin.name().equals("count")) {
            var type = terms.getFirst().type();
            if (!type.isOpen() && !(type instanceof LogicType.ListOf) && type != Simple.NOTHING) {
                checking.warn(
                        LogicCode.WRONG_ARGUMENTS,
                        terms.getFirst().span(),
                        "count counts the items of a list, but this is %s, which counts as one."
                                .formatted(type.described()),
                        null);
            }
        }
    }

    /** Every function that is handed to a built-in one compares two values. */
    private void functions(Builtin builtin, Overload form, List<Term> terms) {
        for (int i = 0; i < terms.size(); i++) {
            var parameter = form.parameters().get(Math.min(i, form.parameters().size() - 1));
            if (parameter.kind() != ParameterKind.FUNCTION
                    || !(terms.get(i).type()
                            instanceof LogicType.FunctionOf(var parameters, _, var result))) {
                continue;
            }
            if (parameters != null && parameters.size() != 2) {
                checking.error(
                        LogicCode.WRONG_ARGUMENTS,
                        terms.get(i).span(),
                        "%s calls this function with two values, but it takes %d."
                                .formatted(builtin.name(), parameters.size()));
            } else if (result != Simple.BOOLEAN && !result.isOpen()) {
                checking.error(
                        LogicCode.WRONG_ARGUMENTS,
                        terms.get(i).span(),
                        "%s needs true or false of this function, but it gives %s."
                                .formatted(builtin.name(), result.described()));
            }
        }
    }

    /** A date written wrong is found now and not when somebody saves a record. */
    private void text(Builtin builtin, List<Term> terms) {
        if (terms.size() != 1
                || !(terms.getFirst() instanceof Term.Constant constant)
                || !(constant.value() instanceof String text)) {
            return;
        }
        var example =
                switch (builtin.name()) {
                    case "date" -> TemporalText.date(text) == null ? "2026-05-01" : null;
                    case "time" -> TemporalText.time(text) == null ? "14:30:00" : null;
                    case "date and time" ->
                            TemporalText.moment(text) == null ? "2026-05-01T14:30:00" : null;
                    case "duration" ->
                            TemporalText.duration(text) == null ? "P1DT6H or P1Y2M" : null;
                    default -> null;
                };
        if (example != null) {
            checking.error(
                    LogicCode.BAD_TEMPORAL,
                    constant.span(),
                    "%s is not a %s; write it as in %s."
                            .formatted(Quoted.of(text), builtin.name(), example));
        }
    }

    /** The first argument a form does not take, or -1. */
    static int misfit(Overload form, List<Term> terms) {
        for (int i = 0; i < terms.size(); i++) {
            var parameter = form.parameters().get(Math.min(i, form.parameters().size() - 1));
            if (!parameter.kind().accepts(terms.get(i).type())) {
                return i;
            }
        }
        return -1;
    }

    void reportMisfit(Builtin builtin, Overload form, List<Term> terms) {
        int at = misfit(form, terms);
        var parameter = form.parameters().get(Math.min(at, form.parameters().size() - 1));
        var term = terms.get(at);
        checking.error(
                LogicCode.WRONG_ARGUMENTS,
                term.span(),
                "%s takes %s as its %s, but this is %s."
                        .formatted(
                                builtin.name(),
                                parameter.kind().described(),
                                parameter.name(),
                                term.type().described()));
    }
}
