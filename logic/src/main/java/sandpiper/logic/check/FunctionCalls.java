package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.Step;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.OutsideService.OutsideFunction;
import sandpiper.logic.type.RecordType;

/** Checks calls of functions: which one is meant, on what, with which arguments. */
final class FunctionCalls {
    private final Checking checking;
    private final Expressions expressions;

    FunctionCalls(Checking checking, Expressions expressions) {
        this.checking = checking;
        this.expressions = expressions;
    }

    /**
     * A call that is right.
     *
     * @param record on which it is called, or {@code null} for a function of the object as a whole
     * @param arguments in the order of the parameters; {@code null} for one that is left out
     */
    record Called(
            RecordType object,
            FunctionType function,
            @Nullable Term record,
            List<@Nullable Term> arguments) {}

    /**
     * An outside service that is asked rightly.
     *
     * @param arguments in the order of the parameters; {@code null} for one that is left out
     */
    record Asked(OutsideFunction function, List<@Nullable Term> arguments) {}

    /** Whether a call asks an outside service; a hyphen in the name tells that one is meant. */
    boolean asksOutside(Step.Call call, Scope scope) {
        var name = nameOf(call);
        return name.contains("-")
                || (checking.world().connection(name).isPresent()
                        && !scope.allNames().contains(name));
    }

    private static String nameOf(Step.Call call) {
        return call.target()
                        instanceof Expr.Invocation(Expr.Path(Expr.Name(var name, _), _, _, _), _, _)
                ? name
                : "";
    }

    /** {@code connection.f(...)}; {@code null} when something is wrong with it. */
    @Nullable Asked checkOutside(Step.Call call, Scope scope) {
        if (!(call.target()
                instanceof
                Expr.Invocation(
                        Expr.Path(Expr.Name(var name, var nameSpan), var member, var span, _),
                        var given,
                        _))) {
            return null;
        }
        var world = checking.world();
        var service = world.connection(name);
        var function = service.flatMap(one -> one.function(member));
        if (function.isPresent()) {
            var arguments = arguments(function.get(), span, given, scope);
            return arguments == null ? null : new Asked(function.get(), arguments);
        }
        given.forEach(argument -> expressions.term(argument.value(), scope));
        if (service.isEmpty()) {
            checking.error(
                    LogicCode.UNKNOWN_NAME,
                    nameSpan,
                    world.connectionNames().isEmpty()
                            ? "There is no connection %s.".formatted(Quoted.of(name))
                            : "There is no connection %s; there is %s."
                                    .formatted(
                                            Quoted.of(name),
                                            String.join(", ", world.connectionNames())),
                    Nearest.to(name, world.connectionNames()).orElse(null));
        } else {
            var names = service.get().functions().stream().map(FunctionType::name).toList();
            checking.error(
                    LogicCode.UNKNOWN_FUNCTION,
                    span,
                    names.isEmpty()
                            ? "%s has no calls.".formatted(name)
                            : "%s has no call %s; it has %s."
                                    .formatted(name, Quoted.of(member), String.join(", ", names)),
                    Nearest.to(member, names).orElse(null));
        }
        return null;
    }

    /** {@code f(...)} on this record, {@code x.f(...)} on another, {@code Object.f(...)}. */
    @Nullable Called check(Step.Call call, Scope scope) {
        return switch (call.target()) {
            case Expr.Call(var name, var span, var arguments, _) ->
                    onThis(name, span, arguments, scope);
            case Expr.Invocation(Expr.Path(var source, var name, var span, _), var arguments, _) ->
                    onOther(source, name, span, arguments, scope);
            case Expr.Unreadable _ -> null;
            default -> {
                checking.error(
                        LogicCode.UNKNOWN_FUNCTION,
                        call.target().span(),
                        "Behind call stands a function with its arguments, as in call"
                                + " checkOut(meter: 12).");
                yield null;
            }
        };
    }

    private @Nullable Called onThis(
            String name, Span span, List<Expr.Argument> arguments, Scope scope) {
        var self = expressions.term(new Expr.Name("this", span), scope);
        if (!(self.type() instanceof RecordOf(var type))) {
            return null;
        }
        return found(type, name, span, arguments, self, scope);
    }

    private @Nullable Called onOther(
            Expr source, String name, Span span, List<Expr.Argument> arguments, Scope scope) {
        if (source instanceof Expr.Name(var text, _)) {
            var object = checking.world().object(text);
            if (object.isPresent()) {
                return found(object.get(), name, span, arguments, null, scope);
            }
        }
        var record = expressions.term(source, scope);
        if (!(record.type() instanceof RecordOf(var type))) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    source.span(),
                    "This must be a record or an object, but is %s."
                            .formatted(record.type().described()));
            return null;
        }
        return found(type, name, span, arguments, record, scope);
    }

    private @Nullable Called found(
            RecordType object,
            String name,
            Span span,
            List<Expr.Argument> given,
            @Nullable Term record,
            Scope scope) {
        var function = object.function(name);
        if (function.isEmpty()) {
            given.forEach(argument -> expressions.term(argument.value(), scope));
            checking.error(
                    LogicCode.UNKNOWN_FUNCTION,
                    span,
                    object.functionNames().isEmpty()
                            ? "%s has no functions.".formatted(object.name())
                            : "%s has no function %s; it has %s."
                                    .formatted(
                                            object.name(),
                                            Quoted.of(name),
                                            String.join(", ", object.functionNames())),
                    Nearest.to(name, object.functionNames()).orElse(null));
            return null;
        }
        if (function.get().isOnRecord() && record == null) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    span,
                    "%s is called on a record of %s, not on the object."
                            .formatted(name, object.name()));
            return null;
        }
        var arguments = arguments(function.get(), span, given, scope);
        return arguments == null
                ? null
                : new Called(
                        object,
                        function.get(),
                        function.get().isOnRecord() ? Objects.requireNonNull(record) : null,
                        arguments);
    }

    private @Nullable List<@Nullable Term> arguments(
            FunctionType function, Span span, List<Expr.Argument> given, Scope scope) {
        var parameters = function.parameters();
        var terms = new @Nullable Term[parameters.size()];
        boolean right = true;
        for (int i = 0; i < given.size(); i++) {
            int at = place(function, given.get(i), i);
            if (at < 0) {
                right = false;
                expressions.term(given.get(i).value(), scope);
            } else if (terms[at] != null) {
                right = false;
                checking.error(
                        LogicCode.WRONG_ARGUMENTS,
                        given.get(i).value().span(),
                        "%s is given twice.".formatted(parameters.get(at).name()));
            } else {
                terms[at] =
                        expressions.assigned(
                                given.get(i).value(),
                                scope,
                                parameters.get(at).type(),
                                parameters.get(at).name());
            }
        }
        for (int i = 0; i < terms.length; i++) {
            if (terms[i] == null && parameters.get(i).required() && right) {
                right = false;
                checking.error(
                        LogicCode.WRONG_ARGUMENTS,
                        span,
                        "%s needs %s.".formatted(function.name(), parameters.get(i).name()));
            }
        }
        return right ? new ArrayList<>(Arrays.asList(terms)) : null;
    }

    /** The place of the parameter an argument is for, or -1 with an error. */
    private int place(FunctionType function, Expr.Argument argument, int index) {
        var names = function.parameters().stream().map(FunctionType.Parameter::name).toList();
        var name = argument.name();
        int at = name == null ? (index < names.size() ? index : -1) : names.indexOf(name);
        if (at < 0) {
            checking.error(
                    LogicCode.WRONG_ARGUMENTS,
                    name == null ? argument.value().span() : argument.nameSpan(),
                    names.isEmpty()
                            ? "%s takes no arguments.".formatted(function.name())
                            : name == null
                                    ? "%s takes no more than %d arguments: %s."
                                            .formatted(
                                                    function.name(),
                                                    names.size(),
                                                    String.join(", ", names))
                                    : "%s has no parameter %s; it takes %s."
                                            .formatted(
                                                    function.name(),
                                                    Quoted.of(name),
                                                    String.join(", ", names)),
                    name == null ? null : Nearest.to(name, names).orElse(null));
        }
        return at;
    }
}
