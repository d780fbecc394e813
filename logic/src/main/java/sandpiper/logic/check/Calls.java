package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.function.AmountFunctions;
import sandpiper.logic.function.Builtin;
import sandpiper.logic.function.Builtins;
import sandpiper.logic.function.Overload;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.TemporalText;

/** Calls of built-in functions and of functions that are values. */
final class Calls {
    /** Functions that bring a list of records down to one value. */
    private static final Set<String> TOTALS =
            Set.of(
                    "count", "sum", "min", "max", "mean", "median", "product", "stddev", "mode",
                    "all", "any");

    private static final String CHANGED = "changed";

    private final Checking checking;
    private final Expressions expressions;
    private final NameResolver names;
    private final ArgumentChecks given;

    Calls(Checking checking, Expressions expressions, NameResolver names) {
        this.checking = checking;
        this.expressions = expressions;
        this.names = names;
        this.given = new ArgumentChecks(checking);
    }

    Term call(Expr.Call call, Scope scope) {
        var named = names.function(call.function(), call.functionSpan(), scope);
        if (named != null) {
            return invoke(named, call.arguments(), scope, call.span());
        }
        if (call.function().equals(CHANGED)) {
            return changed(call, scope);
        }
        var builtin = Builtins.find(call.function());
        if (builtin.isEmpty()) {
            arguments(call.arguments(), scope, List.of());
            return unknown(call);
        }
        return builtin(builtin.get(), call, scope);
    }

    private Term unknown(Expr.Call call) {
        var known = new ArrayList<>(Builtins.names());
        known.add(CHANGED);
        var nearest = Nearest.to(call.function(), known).orElse(null);
        checking.error(
                LogicCode.UNKNOWN_FUNCTION,
                call.functionSpan(),
                "There is no function %s.".formatted(Quoted.of(call.function())),
                nearest);
        return NameResolver.nothing(call.span());
    }

    Term invocation(Expr.Invocation invocation, Scope scope) {
        var function = expressions.term(invocation.function(), scope);
        return invoke(function, invocation.arguments(), scope, invocation.span());
    }

    private Term invoke(Term function, List<Expr.Argument> arguments, Scope scope, Span span) {
        var terms = arguments(arguments, scope, List.of());
        var argumentNames = argumentNames(arguments);
        LogicType result = Simple.ANY;
        if (function instanceof Term.BuiltinValue(var builtin, _, _)) {
            return builtin(
                    builtin,
                    new Expr.Call(builtin.name(), function.span(), arguments, span),
                    scope);
        }
        if (function.type() instanceof LogicType.FunctionOf(var parameters, var names, var type)) {
            result = type;
            checkArguments(parameters, names, argumentNames, terms, arguments);
            if (parameters != null && parameters.size() != terms.size()) {
                checking.error(
                        LogicCode.WRONG_ARGUMENTS,
                        span,
                        "This function takes %d argument%s, but %d %s given."
                                .formatted(
                                        parameters.size(),
                                        parameters.size() == 1 ? "" : "s",
                                        terms.size(),
                                        terms.size() == 1 ? "is" : "are"));
            }
        } else if (!function.type().isOpen()) {
            checking.error(
                    LogicCode.UNKNOWN_FUNCTION,
                    function.span(),
                    "This is %s and cannot be called.".formatted(function.type().described()));
        }
        return new Term.Invoke(function, terms, argumentNames, result, span);
    }

    /** Whether what is given fits what the parameters of a function say they take. */
    private void checkArguments(
            @Nullable List<LogicType> parameters,
            @Nullable List<String> names,
            @Nullable List<String> given,
            List<Term> terms,
            List<Expr.Argument> arguments) {
        if (parameters == null) {
            return;
        }
        for (int i = 0; i < terms.size(); i++) {
            int at = given == null || names == null ? i : names.indexOf(given.get(i));
            if (at < 0) {
                checking.error(
                        LogicCode.WRONG_ARGUMENTS,
                        arguments.get(i).nameSpan(),
                        "This function has no parameter %s; it takes %s."
                                .formatted(
                                        Quoted.of(given == null ? "" : given.get(i)),
                                        String.join(", ", names == null ? List.of() : names)),
                        Nearest.to(
                                        given == null ? "" : given.get(i),
                                        names == null ? List.of() : names)
                                .orElse(null));
            } else if (at < parameters.size() && (given == null || names != null)) {
                expressions.assignments().expectArgument(terms.get(i), parameters.get(at));
            }
        }
    }

    private @Nullable List<String> argumentNames(List<Expr.Argument> arguments) {
        if (arguments.isEmpty() || arguments.getFirst().name() == null) {
            return null;
        }
        return arguments.stream()
                .map(argument -> Objects.requireNonNullElse(argument.name(), ""))
                .toList();
    }

    private List<Term> arguments(
            List<Expr.Argument> arguments, Scope scope, List<LogicType> functionTypes) {
        var terms = new ArrayList<Term>();
        for (var argument : arguments) {
            checking.scopes().putIfAbsent(argument.value().span(), scope);
            if (argument.value() instanceof Expr.FunctionLiteral function) {
                var known = terms.isEmpty() ? functionTypes : itemTypes(terms.getFirst());
                terms.add(expressions.function(function, scope, known));
            } else {
                terms.add(expressions.term(argument.value(), scope));
            }
        }
        return terms;
    }

    /** A function that is given beside a list is most likely about its items. */
    private static List<LogicType> itemTypes(Term list) {
        return List.of(list.type().itemType(), list.type().itemType());
    }

    private Term builtin(Builtin builtin, Expr.Call call, Scope scope) {
        var terms = arguments(call.arguments(), scope, List.of());
        var named = argumentNames(call.arguments());
        if (named != null) {
            return byName(builtin, call, terms, named);
        }
        var forms = builtin.forms().stream().filter(form -> form.takes(terms.size())).toList();
        if (forms.isEmpty()) {
            wrongArguments(builtin, call, terms.size());
            return NameResolver.nothing(call.span());
        }
        return chosen(builtin, forms, call, terms);
    }

    private Term byName(
            Builtin builtin, Expr.Call call, List<Term> terms, List<String> argumentNames) {
        for (var form : builtin.forms()) {
            if (form.takes(argumentNames)) {
                var ordered = new ArrayList<Term>();
                for (var parameter : form.parameters()) {
                    int at = argumentNames.indexOf(parameter.name());
                    ordered.add(
                            at < 0
                                    ? new Term.Constant(
                                            Nothing.NULL, Simple.NOTHING, false, call.span())
                                    : terms.get(at));
                }
                while (!ordered.isEmpty()
                        && ordered.getLast() instanceof Term.Constant constant
                        && !constant.literal()
                        && constant.value() == Nothing.NULL) {
                    ordered.removeLast();
                }
                return chosen(builtin, List.of(form), call, ordered);
            }
        }
        wrongArguments(builtin, call, terms.size());
        return NameResolver.nothing(call.span());
    }

    private void wrongArguments(Builtin builtin, Expr.Call call, int count) {
        checking.error(
                LogicCode.WRONG_ARGUMENTS,
                call.span(),
                "%s cannot be called with %s; write %s."
                        .formatted(
                                builtin.name(),
                                argumentNames(call.arguments()) != null
                                        ? "these names"
                                        : count + (count == 1 ? " argument" : " arguments"),
                                String.join(" or ", builtin.written())));
    }

    private Term chosen(Builtin builtin, List<Overload> forms, Expr.Call call, List<Term> terms) {
        var fitting =
                forms.stream().filter(form -> ArgumentChecks.misfit(form, terms) < 0).findFirst();
        if (fitting.isEmpty()) {
            given.reportMisfit(builtin, forms.getFirst(), terms);
            return NameResolver.nothing(call.span());
        }
        if (TOTALS.contains(builtin.name()) && terms.size() == 1 && isOfRecords(terms.getFirst())) {
            return aggregate(builtin, fitting.get(), terms.getFirst(), call.span());
        }
        if (builtin.name().equals(AmountFunctions.CONVERT)) {
            return conversion(builtin, fitting.get(), terms, call.span());
        }
        var type = typeOf(builtin, fitting.get(), terms);
        given.check(builtin, fitting.get(), terms);
        return new Term.Call(builtin, terms, type, call.span());
    }

    /** The currency of an amount that is always in the same is known here alone. */
    private Term conversion(Builtin builtin, Overload form, List<Term> given, Span span) {
        if (!checking.areSteps()) {
            checking.error(
                    LogicCode.ASKS_IN_CHANGE,
                    span,
                    "convert may have to ask an outside service for the rate, so it stands in"
                            + " steps alone: let a rule set a field to it.");
        } else if (!checking.world().hasRates()) {
            checking.error(
                    LogicCode.UNKNOWN_FUNCTION,
                    span,
                    "No package says from where exchange rates come; name a call of a connection"
                            + " in package.yaml, as in rates: tide-table.rate.");
        }
        var terms = new ArrayList<>(given);
        if (terms.size() == AmountFunctions.FROM
                && terms.getFirst().type() instanceof LogicType.AmountOf(var currency)
                && currency != null) {
            terms.add(new Term.Constant(currency, Simple.TEXT, false, span));
        }
        if (terms.size() == AmountFunctions.FROM
                && (terms.getFirst().type() == Simple.NUMBER
                        || terms.getFirst().type() == Simple.PERCENT)) {
            checking.error(
                    LogicCode.WRONG_ARGUMENTS,
                    terms.getFirst().span(),
                    "This is %s without a currency; say the one it is in as the fourth argument."
                            .formatted(terms.getFirst().type().described()));
        }
        return new Term.Call(builtin, terms, typeOf(builtin, form, terms), span);
    }

    private static LogicType typeOf(Builtin builtin, Overload form, List<Term> terms) {
        if (builtin.name().equals("duration")
                && terms.getFirst() instanceof Term.Constant constant
                && constant.value() instanceof String text) {
            var value = TemporalText.duration(text);
            return value == null ? Simple.ANY : ValueTypes.of(value);
        }
        return form.result().apply(terms.stream().map(Term::type).toList());
    }

    /** Whether a list comes from records, so that what is empty is left out of totals. */
    private static boolean isOfRecords(Term list) {
        return switch (list) {
            case Term.Project project -> isRecords(project.source().type());
            case Term.For loop ->
                    loop.sources().size() == 1
                            && isRecords(loop.sources().getFirst().domain().type());
            default -> isRecords(list.type());
        };
    }

    private static boolean isRecords(LogicType type) {
        return type instanceof LogicType.ListOf(var item) && item instanceof RecordOf;
    }

    private Term aggregate(Builtin builtin, Overload form, Term list, Span span) {
        boolean ofRecords = isRecords(list.type());
        if (ofRecords && !builtin.name().equals("count")) {
            checking.error(
                    LogicCode.WRONG_ARGUMENTS,
                    list.span(),
                    "%s needs something of each record, as in %s(charges.gross)."
                            .formatted(builtin.name(), builtin.name()));
            return NameResolver.nothing(span);
        }
        return new Term.Aggregate(builtin, list, form.result().apply(List.of(list.type())), span);
    }

    /** {@code changed(field)}: whether a field has another value than before. */
    private Term changed(Expr.Call call, Scope scope) {
        var old = scopeName(scope, "old");
        if (old == null) {
            checking.error(
                    LogicCode.UNKNOWN_FUNCTION,
                    call.functionSpan(),
                    "changed has a meaning only where a record changes: in rules and in checks.");
            return NameResolver.nothing(call.span());
        }
        if (call.arguments().size() != 1) {
            checking.error(
                    LogicCode.WRONG_ARGUMENTS,
                    call.span(),
                    "changed takes one field, as in changed(departure).");
            return NameResolver.nothing(call.span());
        }
        var now = expressions.term(call.arguments().getFirst().value(), scope);
        if (!(now instanceof Term.Read(Term.Local(int slot, _, _, _), var member, var span))
                || slot != NameContext.THIS) {
            checking.error(
                    LogicCode.WRONG_ARGUMENTS,
                    call.arguments().getFirst().value().span(),
                    "changed takes a field of the record itself, as in changed(departure).");
            return NameResolver.nothing(call.span());
        }
        return new Term.Differs(new Term.Read(old, member, span), now, call.span());
    }

    private static @Nullable Term scopeName(Scope from, String name) {
        for (Scope scope = from; scope != null; scope = scope.outer()) {
            var found = scope.names().get(name);
            if (found != null) {
                return found;
            }
        }
        return null;
    }
}
