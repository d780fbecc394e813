package sandpiper.logic.run;

import java.util.List;
import sandpiper.logic.function.Builtin;
import sandpiper.logic.function.FunctionParameter;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.value.FunctionValue;
import sandpiper.logic.value.Nothing;

/** Functions that are values. */
final class Closures {
    private Closures() {}

    static Op function(Term.FunctionOf function) {
        var body = Compiler.op(function.body());
        var names = function.parameters().stream().map(Term.Local::name).toList();
        int[] slots = function.parameters().stream().mapToInt(Term.Local::slot).toArray();
        var declared = function.declared();
        return frame -> new Closure(names, declared, slots, body, frame.copy());
    }

    /** A built-in function as a value. */
    static Op builtin(Builtin function) {
        return frame -> new Native(function, frame.run());
    }

    private record Native(Builtin function, Evaluation run) implements FunctionValue {
        @Override
        public List<String> parameters() {
            return function.forms().getFirst().parameters().stream()
                    .map(FunctionParameter::name)
                    .toList();
        }

        @Override
        public Object call(List<Object> arguments) {
            run.spend(1);
            return function.call(arguments, run);
        }
    }

    /** A function with the places it saw when it was written down. */
    private record Closure(
            List<String> parameters, List<LogicType> declared, int[] slots, Op body, Frame captured)
            implements FunctionValue {
        @Override
        public Object call(List<Object> arguments) {
            if (arguments.size() != slots.length) {
                captured.run()
                        .note(
                                "A function of %d parameters was called with %d arguments."
                                        .formatted(slots.length, arguments.size()));
                return Nothing.NULL;
            }
            var run = captured.run();
            run.enter();
            try {
                run.spend(1);
                var frame = captured.copy();
                for (int i = 0; i < slots.length; i++) {
                    frame.set(slots[i], Instances.conform(arguments.get(i), declared.get(i), run));
                }
                return body.eval(frame);
            } finally {
                run.leave();
            }
        }
    }

    static Op invoke(Term.Invoke invoke) {
        var function = Compiler.op(invoke.function());
        var arguments = Compiler.ops(invoke.arguments());
        var names = invoke.names();
        return frame -> {
            if (!(function.eval(frame) instanceof FunctionValue called)) {
                frame.run().note("What is called here is no function.");
                return Nothing.NULL;
            }
            var values = new Object[arguments.length];
            for (int i = 0; i < values.length; i++) {
                values[i] = arguments[i].eval(frame);
            }
            return called.call(names == null ? List.of(values) : ordered(called, names, values));
        };
    }

    private static List<Object> ordered(
            FunctionValue function, List<String> names, Object[] values) {
        if (!function.parameters().containsAll(names)) {
            return List.of();
        }
        return function.parameters().stream()
                .map(parameter -> names.indexOf(parameter))
                .<Object>map(at -> at < 0 ? Nothing.NULL : values[at])
                .toList();
    }
}
