package sandpiper.engine.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.CallTrial;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.Preview;
import sandpiper.engine.react.StepActions;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.WorkStoppedException;
import sandpiper.engine.write.CommandRun;
import sandpiper.engine.write.UnitOfWork;
import sandpiper.logic.check.CheckedSteps;
import sandpiper.logic.check.CheckedTerm;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.run.BudgetException;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.run.StepCode;
import sandpiper.logic.value.Nothing;

/** A record in a unit of work that is thrown away, to try logic on. */
public final class Trial {
    private static final String NOT_TAKEN =
            "The tables would not take the record, so they cannot be asked.";

    private final UnitOfWork unit;
    private final Tracer tracer;
    private final CommandRun command;
    private final @Nullable Outcome early;
    private final @Nullable RecordState record;

    /** {@code early} is what came of the command before any work, {@code null} when nothing did. */
    Trial(UnitOfWork unit, Tracer tracer, CommandRun command, @Nullable Outcome early) {
        this.unit = unit;
        this.tracer = tracer;
        this.command = command;
        this.early = early;
        this.record = early == null ? command.about() : null;
    }

    /** Why there is no record to try on; empty when there is one. */
    public List<Fault> faults() {
        return record == null && early instanceof Outcome.Refused refused
                ? refused.faults()
                : List.of();
    }

    /** What the record would be. */
    public Preview preview() {
        var state = record;
        if (state == null) {
            return new Preview(Map.of(), Map.of(), faults(), List.of(), List.of());
        }
        unit.work();
        return new Previews(unit).of(state, tracer);
    }

    /** What the function that was called would do. */
    public CallTrial called() {
        if (early instanceof Outcome.Refused refused) {
            return new CallTrial(
                    null, refused.faults(), List.of(), List.of(), List.of(), List.of(), List.of());
        }
        if (!unit.faults().isStopped()) {
            unit.work();
        }
        return new CallTrials(unit).of(command.result(), tracer);
    }

    /** The value of an expression about the record. */
    public Object value(CheckedTerm checked) {
        var state = record;
        if (state == null) {
            return Nothing.NULL;
        }
        var code = Compiler.compile(checked);
        var frame = unit.workspace().frame(code, state);
        unit.workspace().addChange(frame, state);
        try {
            unit.derivation().run();
            return code.run(frame);
        } catch (BudgetException e) {
            unit.workspace().evaluation().note(e.said());
            return Nothing.NULL;
        } catch (WorkStoppedException _) {
            unit.workspace().evaluation().note(NOT_TAKEN);
            return Nothing.NULL;
        }
    }

    /** Runs steps on the record, with everything that follows from them. */
    public Optional<Preview> run(CheckedSteps checked) {
        var state = record;
        if (state == null) {
            return Optional.empty();
        }
        var code = StepCode.compile(checked);
        var frame = code.frame(unit.workspace().evaluation());
        frame.set(NameContext.THIS, state.logic(unit.workspace()));
        unit.workspace().addChange(frame, state);
        try {
            unit.derivation().run();
            code.run(frame, new StepActions(unit.steps(), tracer, state));
        } catch (BudgetException e) {
            unit.workspace().evaluation().note(e.said());
        } catch (WorkStoppedException _) {
            unit.workspace().evaluation().note(NOT_TAKEN);
        }
        unit.work();
        return Optional.of(new Previews(unit).of(state, tracer));
    }

    /**
     * What a reference offers now, as a condition on the records it may point to.
     *
     * @param part the part whose line item it is in, or {@code null}
     * @param item the line item's place, from 0
     * @return nothing when everything is offered, or when only trying can tell
     */
    public Optional<Condition> offered(String field, @Nullable String part, int item) {
        var state = record;
        if (state == null) {
            return Optional.empty();
        }
        var workspace = unit.workspace();
        for (var offer : workspace.logic().of(state.object()).offers()) {
            var ofPart = offer.part();
            var selections = offer.selections();
            boolean same = Objects.equals(ofPart == null ? null : ofPart.name(), part);
            if (!offer.field().name().equals(field) || !same || selections == null) {
                continue;
            }
            var values = new ArrayList<Object>();
            try {
                for (var code : offer.values()) {
                    var frame =
                            ofPart == null || item >= state.items(ofPart).size()
                                    ? workspace.frame(code, state)
                                    : workspace.frame(code, state.items(ofPart).get(item));
                    values.add(code.run(frame));
                }
            } catch (WorkStoppedException _) {
                return Optional.empty();
            }
            return Optional.ofNullable(
                    selections.bind(null, values, state.object().zone()).condition());
        }
        return Optional.empty();
    }

    /** Why something came to null. */
    public List<String> notes() {
        return unit.workspace().evaluation().notes();
    }
}
