package sandpiper.logic.function;

import static sandpiper.logic.function.FunctionParameter.taking;

import java.time.LocalDate;
import java.util.List;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.value.Amount;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Moment;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.Values;

/** What is done with amounts of money beside arithmetic; beyond the standard. */
public final class AmountFunctions {
    /** The name of the function that asks for exchange rates. */
    public static final String CONVERT = "convert";

    /** The place of the currency that an amount without one is in. */
    public static final int FROM = 3;

    static final List<Builtin> ALL =
            List.of(
                    Builtin.of(
                                    CONVERT,
                                    "Amounts",
                                    "An amount in another currency, at the rate of a day; in steps"
                                        + " only, where the package says from where rates come.")
                            .form(
                                    new LogicType.AmountOf(null),
                                    AmountFunctions::convert,
                                    taking("amount", ParameterKind.ANY),
                                    taking("currency", ParameterKind.TEXT),
                                    taking("day", ParameterKind.DAY),
                                    taking("from", ParameterKind.TEXT).orAbsent()));

    private AmountFunctions() {}

    private static Object convert(CallArguments arguments) {
        var given = arguments.any(0);
        if (given == Nothing.NULL) {
            return Nothing.NULL;
        }
        var from =
                given instanceof Amount amount
                        ? amount.currency()
                        : arguments.has(FROM) ? arguments.text(FROM) : "";
        var value = given instanceof Amount amount ? amount.value() : given;
        if (!(value instanceof Decimal number)) {
            return arguments.fail("convert: amount is %s.".formatted(Values.kind(given)));
        }
        if (from.isEmpty()) {
            return arguments.fail("convert: the amount has no currency.");
        }
        var to = arguments.text(1);
        if (from.equals(to)) {
            return new Amount(number, to);
        }
        var day =
                arguments.any(2) instanceof Moment moment
                        ? moment.local().toLocalDate()
                        : (LocalDate) arguments.any(2);
        return arguments.run().rate(from, to, day) instanceof Decimal rate
                        && number.times(rate) instanceof Decimal converted
                ? new Amount(converted, to)
                : Nothing.NULL;
    }
}
