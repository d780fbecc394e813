package sandpiper.logic.function;

import static sandpiper.logic.function.FunctionParameter.taking;

import java.util.List;
import sandpiper.logic.type.LogicType.Simple;
import sandpiper.logic.value.Values;

/** DMN 1.5 §10.3.4.2 and §10.3.4.8. */
final class BooleanFunctions {
    static final List<Builtin> ALL =
            List.of(
                    Builtin.of("not", "True and false", "True when its argument is false.")
                            .form(
                                    Simple.BOOLEAN,
                                    arguments -> !((Boolean) arguments.any(0)),
                                    taking("negand", ParameterKind.BOOLEAN))
                            .example("not(true)", "false")
                            .example("not(null)", "null"),
                    Builtin.of(
                                    "is",
                                    "True and false",
                                    "Whether two values are the same in kind and in every part,"
                                            + " zones included.")
                            .form(
                                    Simple.BOOLEAN,
                                    arguments ->
                                            Values.identical(arguments.any(0), arguments.any(1)),
                                    taking("value1", ParameterKind.ANY),
                                    taking("value2", ParameterKind.ANY))
                            .example("is(@\"2026-05-01\", @\"2026-05-01T00:00:00\")", "false")
                            .example("is(null, null)", "true"));

    private BooleanFunctions() {}
}
