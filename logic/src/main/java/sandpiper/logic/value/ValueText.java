package sandpiper.logic.value;

import java.time.Duration;
import java.time.LocalDate;
import java.util.List;

/** Writes values as text, as FEEL's {@code string} does (DMN 1.5 §10.3.4.1). */
public final class ValueText {
    /** Beyond this much a list is cut: enough for a person, too little to fill memory. */
    private static final int LONGEST = 100_000;

    private ValueText() {}

    /**
     * The text of a value; text inside lists and contexts stands in quotes, text alone does not.
     */
    public static String of(Object value) {
        if (value instanceof String text) {
            return text;
        }
        var into = new StringBuilder();
        write(value, into);
        return into.toString();
    }

    /** As it would be written in an expression: text in quotes, dates with {@code @}. */
    public static String literal(Object value) {
        return switch (value) {
            case LocalDate _, TimeOfDay _, Moment _, Duration _, Months _ ->
                    "@\"" + of(value) + '"';
            default -> {
                var into = new StringBuilder();
                write(value, into);
                yield into.toString();
            }
        };
    }

    private static void write(Object value, StringBuilder into) {
        if (into.length() > LONGEST) {
            return;
        }
        switch (value) {
            case String text ->
                    into.append('"')
                            .append(text.replace("\\", "\\\\").replace("\"", "\\\""))
                            .append('"');
            case LocalDate date -> into.append(TemporalText.write(date));
            case TimeOfDay time -> into.append(TemporalText.write(time));
            case Moment moment -> into.append(TemporalText.write(moment));
            case Duration duration -> into.append(TemporalText.write(duration));
            case List<?> list -> {
                into.append('[');
                for (int i = 0; i < list.size() && into.length() <= LONGEST; i++) {
                    into.append(i == 0 ? "" : ", ");
                    write(list.get(i), into);
                }
                into.append(']');
            }
            case Context context -> context(context, into);
            case Range range -> range(range, into);
            case RecordValue record -> into.append(record.written());
            case FunctionValue function ->
                    into.append("function(")
                            .append(String.join(", ", function.parameters()))
                            .append(')');
            default -> into.append(value);
        }
        if (into.length() > LONGEST) {
            into.append(" …");
        }
    }

    private static void context(Context context, StringBuilder into) {
        into.append('{');
        boolean first = true;
        for (var key : context.keys()) {
            into.append(first ? "" : ", ");
            first = false;
            if (key.matches("[\\p{L}_][\\p{L}\\p{N}_]*( [\\p{L}\\p{N}_]+)*")) {
                into.append(key);
            } else {
                write(key, into);
            }
            into.append(": ");
            write(context.get(key), into);
        }
        into.append('}');
    }

    private static void range(Range range, StringBuilder into) {
        if (range.start() == Nothing.NULL) {
            into.append(range.endIncluded() ? "(<=" : "(<");
            write(range.end(), into);
            into.append(')');
        } else if (range.end() == Nothing.NULL) {
            into.append(range.startIncluded() ? "(>=" : "(>");
            write(range.start(), into);
            into.append(')');
        } else {
            into.append(range.startIncluded() ? '[' : '(');
            write(range.start(), into);
            into.append("..");
            write(range.end(), into);
            into.append(range.endIncluded() ? ']' : ')');
        }
    }
}
