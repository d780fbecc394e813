package sandpiper.model.change;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.ValueType;

/** How what a function takes and gives back, or an event tells, breaks those who count on it. */
final class ValueBreaks {
    private ValueBreaks() {}

    /** Compares what a caller gives. */
    static List<String> asked(ValueType.Group was, ValueType.Group is) {
        var found = new ArrayList<String>();
        asked("", was, is, found);
        return found;
    }

    private static void asked(
            String prefix, ValueType.Group was, ValueType.Group is, List<String> into) {
        for (var parameter : was.entries()) {
            var now = is.entry(parameter.name());
            if (now.isEmpty()) {
                into.add("no longer takes " + prefix + parameter.name());
            } else {
                differing(
                        prefix + parameter.name(), parameter.type(), now.get().type(), true, into);
            }
        }
        for (var parameter : is.entries()) {
            boolean wasNeeded =
                    was.entry(parameter.name()).filter(one -> one.required()).isPresent();
            if (parameter.required() && !wasNeeded) {
                into.add("needs %s%s from now on".formatted(prefix, parameter.name()));
            }
        }
    }

    /** Compares what a caller or subscriber gets. */
    static List<String> returned(@Nullable ValueType was, @Nullable ValueType is) {
        var found = new ArrayList<String>();
        if (was != null && is == null) {
            found.add("no longer returns anything");
        } else if (was != null && is != null) {
            differing("what it returns", was, is, false, found);
        }
        return found;
    }

    private static void told(
            String prefix, ValueType.Group was, ValueType.Group is, List<String> into) {
        for (var one : was.entries()) {
            var now = is.entry(one.name());
            if (now.isEmpty()) {
                into.add("no longer tells " + prefix + one.name());
            } else {
                differing(prefix + one.name(), one.type(), now.get().type(), false, into);
            }
        }
    }

    private static void differing(
            String name, ValueType was, ValueType is, boolean given, List<String> into) {
        switch (was) {
            case ValueType.Single(var field) when is instanceof ValueType.Single(var now) -> {
                var other = TypeBreaks.otherForm(field.type(), now.type());
                var message =
                        other == null && given
                                ? TypeBreaks.narrower(field.type(), now.type())
                                : other;
                if (message != null) {
                    into.add("%s %s".formatted(name, message));
                }
            }
            case ValueType.Many(var item) when is instanceof ValueType.Many(var now) ->
                    differing(name, item, now, given, into);
            case ValueType.Group group when is instanceof ValueType.Group now -> {
                var prefix = name.equals("what it returns") ? "" : name + ".";
                if (given) {
                    asked(prefix, group, now, into);
                } else {
                    told(prefix, group, now, into);
                }
            }
            default -> into.add("%s has another form".formatted(name));
        }
    }
}
