package sandpiper.engine.outside;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Quoted;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.ValueText;
import sandpiper.model.connection.OutsideCallType;
import sandpiper.model.definition.Rounding;
import sandpiper.model.release.Codec;
import sandpiper.model.release.ValueType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.ParsedValue;
import sandpiper.model.type.TypeKeyword;

/** Values of a call between the language and what is sent and comes. For one call. */
final class OutsideValues {
    /** Values of one list. */
    private static final int MOST_ITEMS = 10_000;

    /** Characters of a number. */
    private static final int LONGEST_NUMBER = 40;

    private final OutsideCallType call;
    private final List<String> problems = new ArrayList<>();

    OutsideValues(OutsideCallType call) {
        this.call = call;
    }

    /** What is wrong with what was read. */
    List<String> problems() {
        return problems;
    }

    /** Arguments in plain form, in the order of the parameters. */
    List<@Nullable Object> sent(List<Object> arguments) {
        var sent = new ArrayList<@Nullable Object>();
        for (int i = 0; i < arguments.size(); i++) {
            sent.add(sent(call.takes().entries().get(i).type(), arguments.get(i)));
        }
        return sent;
    }

    private @Nullable Object sent(ValueType type, Object value) {
        if (value == Nothing.NULL || !(type instanceof ValueType.Single(var field))) {
            return null;
        }
        if (value instanceof Decimal number) {
            return number.big();
        }
        return Codec.toStored(field.type(), value, call.zone(), Rounding.HALF_UP)
                        instanceof ParsedValue.Taken(var stored)
                ? field.type().write(stored)
                : ValueText.of(value);
    }

    /** What came, as a value of the language. */
    Object read(@Nullable Object plain) {
        var gives = call.gives();
        return gives == null ? Nothing.NULL : read(gives, plain, "the answer");
    }

    private Object read(ValueType type, @Nullable Object plain, String what) {
        if (plain == null) {
            return Nothing.NULL;
        }
        return switch (type) {
            case ValueType.Single(var field) -> single(field.type(), plain, what);
            case ValueType.Many(var item) -> {
                if (!(plain instanceof List<?> list)) {
                    yield wrong(what + " is not a list.");
                }
                if (list.size() > MOST_ITEMS) {
                    yield wrong("%s has more than %,d entries.".formatted(what, MOST_ITEMS));
                }
                yield list.stream().map(one -> read(item, one, "an entry of " + what)).toList();
            }
            case ValueType.Group group -> {
                if (!(plain instanceof Map<?, ?> map)) {
                    yield wrong(what + " is not an object.");
                }
                var entries = new LinkedHashMap<String, Object>();
                for (var one : group.entries()) {
                    entries.put(one.name(), read(one.type(), map.get(one.name()), one.name()));
                }
                yield new Context(entries);
            }
        };
    }

    private Object single(FieldType type, Object plain, String what) {
        if (type instanceof NumberType number && number.keyword() != TypeKeyword.INTEGER) {
            // What comes is worked with as it is; only fields have so many places.
            return exact(plain, what);
        }
        // Numbers that must be exact often come as texts.
        var parsed = plain instanceof String text ? type.readText(text) : type.read(number(plain));
        return switch (parsed) {
            case ParsedValue.Taken(var stored) -> Codec.toLogic(type, stored, call.zone());
            case ParsedValue.Refused refused -> wrong("%s %s.".formatted(what, refused.message()));
        };
    }

    private static Object number(Object plain) {
        return plain instanceof Number number ? new BigDecimal(number.toString()) : plain;
    }

    private Object exact(Object plain, String what) {
        try {
            var text = String.valueOf(plain).strip();
            var number =
                    text.length() <= LONGEST_NUMBER ? Decimal.tryOf(new BigDecimal(text)) : null;
            if (number != null) {
                return number;
            }
        } catch (NumberFormatException _) {
            // told below
        }
        return wrong("%s must be a number, but was %s.".formatted(what, Quoted.of(shown(plain))));
    }

    private static String shown(Object plain) {
        var text = String.valueOf(plain);
        return text.length() > LONGEST_NUMBER ? text.substring(0, LONGEST_NUMBER) + "…" : text;
    }

    private Object wrong(String problem) {
        problems.add(problem);
        return Nothing.NULL;
    }
}
