package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.Step;
import sandpiper.logic.term.Act;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.EventShape;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.LogicType.RecordOf;
import sandpiper.logic.type.RecordType;

/** Checks the raising of events: which one is meant, what it tells, which record it is about. */
final class Emissions {
    private final Checking checking;
    private final Expressions expressions;

    Emissions(Checking checking, Expressions expressions) {
        this.checking = checking;
        this.expressions = expressions;
    }

    @Nullable Act check(Step.Emit emit, Scope scope) {
        var event = checking.world().event(emit.event());
        if (event.isEmpty()) {
            emit.values().forEach(entry -> expressions.term(entry.value(), scope));
            var names = checking.world().eventNames();
            checking.error(
                    LogicCode.UNKNOWN_EVENT,
                    emit.eventSpan(),
                    "There is no event %s%s."
                            .formatted(
                                    Quoted.of(emit.event()),
                                    names.isEmpty()
                                            ? ""
                                            : "; there are " + String.join(", ", names)),
                    Nearest.to(emit.event(), names).orElse(null));
            return null;
        }
        var values = values(event.get(), emit, scope);
        return new Act.Emit(event.get(), values, about(event.get(), emit, scope), emit.span());
    }

    private List<Act.Told> values(EventShape event, Step.Emit emit, Scope scope) {
        var told = new ArrayList<Act.Told>();
        var given = new HashSet<String>();
        for (var entry : emit.values()) {
            var value = event.value(entry.name());
            if (value.isEmpty()) {
                expressions.term(entry.value(), scope);
                unknown(event, entry);
            } else if (!given.add(entry.name())) {
                checking.error(
                        LogicCode.DUPLICATE_NAME,
                        entry.nameSpan(),
                        "%s is told twice.".formatted(entry.name()));
            } else {
                told.add(
                        new Act.Told(
                                entry.name(),
                                expressions.assigned(entry.value(), scope, value.get().type())));
            }
        }
        var missing =
                event.values().stream()
                        .filter(FunctionType.Parameter::required)
                        .map(FunctionType.Parameter::name)
                        .filter(name -> !given.contains(name))
                        .toList();
        if (!missing.isEmpty()) {
            checking.error(
                    LogicCode.WRONG_ARGUMENTS,
                    emit.eventSpan(),
                    "%s needs %s.".formatted(event.name(), String.join(", ", missing)));
        }
        return told;
    }

    private void unknown(EventShape event, Expr.Entry entry) {
        var names = event.values().stream().map(FunctionType.Parameter::name).toList();
        checking.error(
                LogicCode.UNKNOWN_MEMBER,
                entry.nameSpan(),
                names.isEmpty()
                        ? "%s tells nothing.".formatted(event.name())
                        : "%s does not tell %s; it tells %s."
                                .formatted(
                                        event.name(),
                                        Quoted.of(entry.name()),
                                        String.join(", ", names)),
                Nearest.to(entry.name(), names).orElse(null));
    }

    /** The record it is about: the one behind {@code about}, otherwise the one at hand. */
    private @Nullable Term about(EventShape event, Step.Emit emit, Scope scope) {
        var wanted = event.about();
        var written = emit.about();
        if (wanted.isEmpty()) {
            if (written != null) {
                checking.error(
                        LogicCode.NOT_ASSIGNABLE,
                        written.span(),
                        "%s is about no record.".formatted(event.name()));
            }
            return null;
        }
        var term =
                written == null
                        ? expressions.term(new Expr.Name("this", emit.eventSpan()), scope)
                        : expressions.term(written, scope);
        if (!isOf(term, wanted.get())) {
            checking.error(
                    LogicCode.NOT_ASSIGNABLE,
                    written == null ? emit.eventSpan() : written.span(),
                    "%s is about a record of %s; say which behind about, as in emit %s { … } about x."
                            .formatted(event.name(), wanted.get().name(), event.name()));
        }
        return term;
    }

    private static boolean isOf(Term term, RecordType wanted) {
        return term.type().isOpen()
                ? term.type() != sandpiper.logic.type.LogicType.Simple.NOTHING
                : term.type() instanceof RecordOf(var record)
                        && record.name().equals(wanted.name());
    }
}
