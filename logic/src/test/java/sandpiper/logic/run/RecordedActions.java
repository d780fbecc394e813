package sandpiper.logic.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.MarinaTypes;
import sandpiper.logic.Span;
import sandpiper.logic.type.EventShape;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.OutsideService.OutsideFunction;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.logic.value.ValueText;

/** Writes down what steps do, a line for each act. */
final class RecordedActions implements Actions {
    private final List<String> lines = new ArrayList<>();
    private final Object answer;
    private int steps;
    private boolean stopped;

    /**
     * @param answer what every function and outside service gives back
     */
    RecordedActions(Object answer) {
        this.answer = answer;
    }

    List<String> lines() {
        return lines;
    }

    int steps() {
        return steps;
    }

    private static String text(@Nullable Object value) {
        return value instanceof RecordValue record
                ? record.written()
                : value == Nothing.NULL || value == null ? "-" : ValueText.of(value);
    }

    private static String text(Map<Member, Object> values) {
        return values.entrySet().stream()
                .map(one -> one.getKey().name() + "=" + text(one.getValue()))
                .collect(Collectors.joining(","));
    }

    private RecordValue made(String line, String key) {
        lines.add(line);
        return MarinaTypes.One.of(MarinaTypes.STAY, "number", key, "nights", "made");
    }

    @Override
    public void set(RecordValue record, Member member, Object value) {
        lines.add("set %s.%s=%s".formatted(record.written(), member.name(), text(value)));
    }

    @Override
    public RecordValue create(RecordType object, Map<Member, Object> values) {
        return made("create %s %s".formatted(object.name(), text(values)), "NEW");
    }

    @Override
    public RecordValue addItem(RecordValue record, Member part, Map<Member, Object> values) {
        return made("add %s.%s %s".formatted(record.written(), part.name(), text(values)), "ITEM");
    }

    @Override
    public RecordValue save(RecordType object, Map<Member, Object> values) {
        return made("save %s %s".formatted(object.name(), text(values)), "SAVED");
    }

    @Override
    public void retire(RecordValue record) {
        lines.add("retire " + record.written());
    }

    @Override
    public void transition(RecordValue record, String name) {
        lines.add("transition %s %s".formatted(record.written(), name));
    }

    @Override
    public void reject(String message, List<String> at) {
        lines.add("reject %s %s".formatted(message, at));
        stopped = true;
    }

    @Override
    public void warn(String message, List<String> at) {
        lines.add("warn %s %s".formatted(message, at));
    }

    @Override
    public void note(String message) {
        lines.add("note " + message);
    }

    @Override
    public Object call(
            RecordType object,
            FunctionType function,
            @Nullable RecordValue record,
            List<Object> arguments) {
        lines.add(
                "call %s.%s on %s with %s"
                        .formatted(
                                object.name(),
                                function.name(),
                                text(record),
                                arguments.stream().map(RecordedActions::text).toList()));
        return answer;
    }

    @Override
    public Object ask(OutsideFunction function, List<Object> arguments) {
        lines.add(
                "ask %s with %s"
                        .formatted(
                                function.written(),
                                arguments.stream().map(RecordedActions::text).toList()));
        return answer;
    }

    @Override
    public void emit(EventShape event, Map<String, Object> values, @Nullable RecordValue about) {
        lines.add(
                "emit %s %s about %s"
                        .formatted(
                                event.name(),
                                values.entrySet().stream()
                                        .map(one -> one.getKey() + "=" + text(one.getValue()))
                                        .toList(),
                                text(about)));
    }

    @Override
    public void beforeStep() {
        steps++;
    }

    @Override
    public void named(String name, Object value) {
        lines.add("%s is %s".formatted(name, text(value)));
    }

    @Override
    public void decided(Span condition, Object value) {
        lines.add("%d..%d %s".formatted(condition.start(), condition.end(), text(value)));
    }

    @Override
    public boolean isStopped() {
        return stopped;
    }
}
