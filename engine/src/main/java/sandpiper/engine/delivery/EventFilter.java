package sandpiper.engine.delivery;

import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.event.Event;
import sandpiper.engine.event.Webhook;
import sandpiper.engine.react.EventValues;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.run.BudgetException;
import sandpiper.logic.run.Code;
import sandpiper.logic.run.Compiler;
import sandpiper.logic.run.Evaluation;
import sandpiper.logic.run.RecordSource;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.World;
import sandpiper.model.release.EventType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ValueType;

/**
 * A condition over what events tell: their fields by name, with {@code type}, {@code at} and {@code
 * by}. A reference is the key of its record, as subscribers see it.
 */
public final class EventFilter {
    private final Release release;
    private final List<String> names;
    private final @Nullable Code code;

    private EventFilter(Release release, List<String> names, @Nullable Code code) {
        this.release = release;
        this.names = names;
        this.code = code;
    }

    /** What checking a filter came to. */
    public sealed interface Checked {
        record Right(EventFilter filter) implements Checked {}

        record Wrong(List<LogicProblem> problems) implements Checked {}
    }

    /** The filter of a webhook. */
    static Checked of(Release release, Webhook webhook) {
        return check(release, webhook.events(), webhook.filter());
    }

    /** Checks a filter over events of some names; {@code null} text lets every event through. */
    public static Checked check(Release release, List<String> events, @Nullable String text) {
        if (text == null || text.isBlank()) {
            return new Checked.Right(new EventFilter(release, List.of(), null));
        }
        var entries = told(release, events);
        var setting = new NameContext(World.EMPTY, null, null, false, null, entries);
        var checked = Checker.condition(text, setting);
        if (!checked.isAccepted()) {
            return new Checked.Wrong(checked.problems());
        }
        return new Checked.Right(
                new EventFilter(release, List.copyOf(entries.keySet()), Compiler.compile(checked)));
    }

    private static Map<String, LogicType> told(Release release, List<String> events) {
        var entries = new LinkedHashMap<String, LogicType>();
        entries.put("type", LogicType.Simple.TEXT);
        entries.put("at", LogicType.Simple.DATE_TIME);
        entries.put("by", LogicType.Simple.TEXT);
        for (var name : events) {
            release.event(name)
                    .ifPresent(event ->
                            event.fields()
                                    .entries()
                                    .forEach(one ->
                                            entries.putIfAbsent(
                                                    one.name(), type(release, one.type()))));
        }
        return entries;
    }

    private static LogicType type(Release release, ValueType type) {
        return type instanceof ValueType.Single(var field) && field.isReference()
                ? LogicType.Simple.TEXT
                : type.logicType(release);
    }

    /** Whether an event passes. */
    boolean holds(Event event) {
        if (code == null) {
            return true;
        }
        var zone = zone(event);
        var told =
                release.event(event.name())
                        .map(type ->
                                new EventValues(zone, EventValues.References.KEYS).of(type, event))
                        .orElse(null);
        var frame = code.frame(new Evaluation(event.at(), zone, RecordSource.NONE));
        for (int i = 0; i < names.size(); i++) {
            var value = told == null ? null : told.find(names.get(i));
            if (value != null) {
                frame.set(NameContext.FIRST_NAME + i, value);
            }
        }
        try {
            return code.run(frame) == Boolean.TRUE;
        } catch (BudgetException _) {
            return false;
        }
    }

    private ZoneId zone(Event event) {
        return release.event(event.name())
                .map(EventType::packageName)
                .flatMap(name ->
                        release.packages().stream()
                                .filter(one -> one.name().equals(name))
                                .findFirst())
                .map(one -> one.zone())
                .orElse(ZoneOffset.UTC);
    }
}
