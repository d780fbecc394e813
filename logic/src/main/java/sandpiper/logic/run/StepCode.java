package sandpiper.logic.run;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.CheckedSteps;
import sandpiper.logic.term.Act;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.Member;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.ValueText;

/** Compiled steps. Immutable and safe to share between threads. */
public final class StepCode {
    private final StepOp[] ops;
    private final int slots;

    @FunctionalInterface
    private interface StepOp {
        void run(Frame frame, Actions actions);
    }

    private StepCode(StepOp[] ops, int slots) {
        this.ops = ops;
        this.slots = slots;
    }

    /** Compiles what the checker accepted. */
    public static StepCode compile(CheckedSteps checked) {
        return new StepCode(ops(checked.acts()), checked.slots());
    }

    /** A frame to fill before it is run. */
    public Frame frame(Evaluation run) {
        return new Frame(slots, run);
    }

    /**
     * Runs the steps until the end, a return, or until something is rejected.
     *
     * @return what a function gives back, otherwise FEEL's null
     * @throws BudgetException when they take more than they may
     */
    public Object run(Frame frame, Actions actions) {
        run(ops, frame, actions);
        return frame.result();
    }

    private static void run(StepOp[] ops, Frame frame, Actions actions) {
        for (var op : ops) {
            if (actions.isStopped() || frame.isEnded()) {
                return;
            }
            frame.run().spend(1);
            actions.beforeStep();
            op.run(frame, actions);
        }
    }

    private static StepOp[] ops(List<Act> acts) {
        return acts.stream().map(StepCode::op).toArray(StepOp[]::new);
    }

    private static StepOp op(Act act) {
        return switch (act) {
            case Act.Let let -> {
                var value = Compiler.op(let.value());
                int slot = let.local().slot();
                var name = let.local().name();
                yield (frame, actions) -> {
                    var worth = value.eval(frame);
                    frame.set(slot, worth);
                    actions.named(name, worth);
                };
            }
            case Act.Set set -> {
                var record = Compiler.op(set.record());
                var value = Compiler.op(set.value());
                var member = set.member();
                yield (frame, actions) -> {
                    if (record.eval(frame) instanceof RecordValue target) {
                        actions.set(target, member, value.eval(frame));
                    }
                };
            }
            case Act.If choice -> choice(choice);
            case Act.ForEach loop -> loop(loop);
            case Act.Create create -> {
                var values = Values.of(create.values());
                yield (frame, actions) ->
                        name(
                                create.as(),
                                frame,
                                actions.create(create.object(), values.work(frame)));
            }
            case Act.AddItem add -> {
                var record = Compiler.op(add.record());
                var values = Values.of(add.values());
                yield (frame, actions) -> {
                    if (record.eval(frame) instanceof RecordValue target) {
                        name(
                                add.as(),
                                frame,
                                actions.addItem(target, add.part(), values.work(frame)));
                    }
                };
            }
            case Act.Save save -> {
                var values = Values.of(save.values());
                yield (frame, actions) ->
                        name(save.as(), frame, actions.save(save.object(), values.work(frame)));
            }
            case Act.Update update -> {
                var record = Compiler.op(update.record());
                var values = Values.of(update.values());
                yield (frame, actions) -> {
                    if (record.eval(frame) instanceof RecordValue target) {
                        values.work(frame)
                                .forEach((member, value) -> actions.set(target, member, value));
                    }
                };
            }
            case Act.Retire retire -> {
                var record = Compiler.op(retire.record());
                yield (frame, actions) -> {
                    if (record.eval(frame) instanceof RecordValue target) {
                        actions.retire(target);
                    }
                };
            }
            case Act.Transition transition -> {
                var record = Compiler.op(transition.record());
                yield (frame, actions) -> {
                    if (record.eval(frame) instanceof RecordValue target) {
                        actions.transition(target, transition.name());
                    }
                };
            }
            case Act.Reject reject -> reject(reject);
            case Act.Warn warn -> {
                var message = Compiler.op(warn.message());
                yield (frame, actions) ->
                        actions.warn(ValueText.of(message.eval(frame)), warn.at());
            }
            case Act.Note note -> {
                var value = Compiler.op(note.value());
                yield (frame, actions) -> actions.note(ValueText.of(value.eval(frame)));
            }
            case Act.Call call -> call(call);
            case Act.Ask ask -> ask(ask);
            case Act.Emit emit -> emit(emit);
            case Act.Return end -> {
                Op value = end.value() == null ? _ -> Nothing.NULL : Compiler.op(end.value());
                yield (frame, _) -> frame.end(value.eval(frame));
            }
        };
    }

    private static void name(Term.@Nullable Local as, Frame frame, RecordValue record) {
        if (as != null) {
            frame.set(as.slot(), record);
        }
    }

    private static List<Op> given(List<@Nullable Term> arguments) {
        return arguments.stream()
                .map(one -> one == null ? (Op) _ -> Nothing.NULL : Compiler.op(one))
                .toList();
    }

    private static StepOp ask(Act.Ask ask) {
        var arguments = given(ask.arguments());
        var function = ask.function();
        var as = ask.as();
        return (frame, actions) -> {
            var answer =
                    actions.ask(function, arguments.stream().map(one -> one.eval(frame)).toList());
            if (as != null) {
                frame.set(as.slot(), answer);
                actions.named(as.name(), answer);
            }
        };
    }

    private static StepOp call(Act.Call call) {
        Op record = call.record() == null ? _ -> Nothing.NULL : Compiler.op(call.record());
        boolean needsRecord = call.record() != null;
        var arguments = given(call.arguments());
        var as = call.as();
        return (frame, actions) -> {
            var target = record.eval(frame) instanceof RecordValue found ? found : null;
            if (target == null && needsRecord) {
                actions.reject(
                        "%s cannot be called: there is no %s to call it on."
                                .formatted(call.function().name(), call.object().name()),
                        List.of());
                return;
            }
            var values = arguments.stream().map(one -> one.eval(frame)).toList();
            frame.run().enter();
            try {
                var result = actions.call(call.object(), call.function(), target, values);
                if (as != null) {
                    frame.set(as.slot(), result);
                }
            } finally {
                frame.run().leave();
            }
        };
    }

    private static StepOp emit(Act.Emit emit) {
        var names = emit.values().stream().map(Act.Told::name).toList();
        var ops = Compiler.ops(emit.values().stream().map(Act.Told::value).toList());
        Op about = emit.about() == null ? _ -> Nothing.NULL : Compiler.op(emit.about());
        return (frame, actions) -> {
            var values = new LinkedHashMap<String, Object>();
            for (int i = 0; i < ops.length; i++) {
                values.put(names.get(i), ops[i].eval(frame));
            }
            var record = about.eval(frame) instanceof RecordValue found ? found : null;
            actions.emit(emit.event(), values, record);
        };
    }

    private static StepOp choice(Act.If choice) {
        record Branch(Act.Branch written, Op condition, StepOp[] ops) {}
        var branches =
                choice.branches().stream()
                        .map(one -> new Branch(one, Compiler.op(one.condition()), ops(one.acts())))
                        .toList();
        var otherwise = ops(choice.otherwise());
        return (frame, actions) -> {
            for (var branch : branches) {
                var holds = branch.condition().eval(frame);
                actions.decided(branch.written().condition().span(), holds);
                if (holds == Boolean.TRUE) {
                    run(branch.ops(), frame, actions);
                    return;
                }
            }
            run(otherwise, frame, actions);
        };
    }

    private static StepOp loop(Act.ForEach loop) {
        var source = Loops.Source.of(loop.source());
        var ops = ops(loop.acts());
        int slot = loop.source().item().slot();
        var name = loop.source().item().name();
        return (frame, actions) -> {
            var items = source.items(frame);
            // A copy: steps may change what the list was taken from.
            for (var item : items == null ? List.of() : List.copyOf(items)) {
                if (actions.isStopped() || frame.isEnded()) {
                    return;
                }
                frame.set(slot, item);
                actions.named(name, item);
                run(ops, frame, actions);
            }
        };
    }

    private static StepOp reject(Act.Reject reject) {
        Op condition = reject.condition() == null ? _ -> false : Compiler.op(reject.condition());
        var message = Compiler.op(reject.message());
        boolean asked = reject.condition() != null;
        return (frame, actions) -> {
            var holds = condition.eval(frame);
            if (asked) {
                actions.decided(reject.span(), holds);
            }
            if (holds != Boolean.TRUE) {
                actions.reject(ValueText.of(message.eval(frame)), reject.at());
            }
        };
    }

    /** Compiled values for fields. */
    private record Values(List<Member> members, Op[] ops) {
        static Values of(List<Act.Assign> assigns) {
            return new Values(
                    assigns.stream().map(Act.Assign::member).toList(),
                    Compiler.ops(assigns.stream().map(Act.Assign::value).toList()));
        }

        Map<Member, Object> work(Frame frame) {
            var values = new LinkedHashMap<Member, Object>();
            for (int i = 0; i < ops.length; i++) {
                values.put(members.get(i), ops[i].eval(frame));
            }
            return values;
        }
    }
}
