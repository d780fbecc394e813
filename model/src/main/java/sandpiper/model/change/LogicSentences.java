package sandpiper.model.change;

import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import sandpiper.model.definition.CheckDefinition;
import sandpiper.model.definition.HandlerDefinition;
import sandpiper.model.definition.RuleDefinition;
import sandpiper.model.release.FunctionDefinition;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.ScheduleDefinition;

/** Says what changes of an object's checks, rules, functions, handlers, schedules and lifecycle. */
final class LogicSentences {
    private LogicSentences() {}

    static void add(ObjectType before, ObjectType after, List<String> into) {
        named("check", before.checks(), after.checks(), CheckDefinition::name, after, into);
        named("rule", before.rules(), after.rules(), RuleDefinition::name, after, into);
        named(
                "function",
                before.functions(),
                after.functions(),
                FunctionDefinition::name,
                after,
                into);
        named("handler", before.handlers(), after.handlers(), HandlerDefinition::name, after, into);
        named(
                "schedule",
                before.schedules(),
                after.schedules(),
                ScheduleDefinition::name,
                after,
                into);
        if (!Objects.equals(before.lifecycle(), after.lifecycle())) {
            into.add("%s: its lifecycle changes.".formatted(after.name()));
        }
    }

    private static <T> void named(
            String what,
            List<T> before,
            List<T> after,
            Function<T, String> name,
            ObjectType object,
            List<String> into) {
        var older =
                before.stream().collect(Collectors.toMap(name, one -> one, (first, _) -> first));
        for (var one : after) {
            var former = older.remove(name.apply(one));
            if (former == null) {
                into.add("%s: %s %s is added.".formatted(object.name(), what, name.apply(one)));
            } else if (!former.equals(one)) {
                into.add("%s: %s %s changes.".formatted(object.name(), what, name.apply(one)));
            }
        }
        older.keySet().stream()
                .sorted()
                .forEach(gone ->
                        into.add("%s: %s %s is removed.".formatted(object.name(), what, gone)));
    }
}
