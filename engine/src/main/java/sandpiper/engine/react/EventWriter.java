package sandpiper.engine.react;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.event.Event;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.work.Origin;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.WorkIds;
import sandpiper.model.definition.Lifecycle;
import sandpiper.model.release.InherentEvents;

/**
 * Stores what a unit of work raised in the same transaction as what it changed: first what steps
 * emitted, in their order, then what records tell by themselves. Those are stored only when
 * somebody listens, since every change would raise one.
 */
public final class EventWriter {
    private final LiveRelease live;
    private final EventStorage events;
    private final Listeners listeners;
    private final Transaction transaction;
    private final Origin origin;
    private final Instant now;

    public EventWriter(
            LiveRelease live,
            EventStorage events,
            Listeners listeners,
            Transaction transaction,
            Origin origin,
            Instant now) {
        this.live = live;
        this.events = events;
        this.listeners = listeners;
        this.transaction = transaction;
        this.origin = origin;
        this.now = now;
    }

    /** What steps emitted. */
    public void emitted(List<RaisedEvents.One> raised) {
        for (var one : raised) {
            var about = one.about();
            store(one.type().name(), about, about == null ? null : about.keyText(), one.data());
        }
    }

    /**
     * What a changed record tells by itself.
     *
     * @param transitions that it took
     */
    public void changed(RecordState record, long version, String key, List<String> transitions) {
        if (record.isNew()) {
            tell(record, "created", version, key, Map.of());
        } else if (record.isRetirementChanged()) {
            tell(record, record.isRetired() ? "retired" : "restored", version, key, Map.of());
        }
        if (!record.isNew() && isHeard(record, "changed")) {
            var changed = changedNames(record);
            if (!changed.isEmpty()) {
                tell(record, "changed", version, key, Map.of(InherentEvents.CHANGED, changed));
            }
        }
        var lifecycle = record.object().lifecycle();
        if (lifecycle != null && !transitions.isEmpty()) {
            tellTransitions(record, lifecycle, version, key, transitions);
        }
    }

    private void tellTransitions(
            RecordState record,
            Lifecycle lifecycle,
            long version,
            String key,
            List<String> transitions) {
        var before = record.slots().before(record.object().fields().get(lifecycle.field()));
        var from = before == null ? lifecycle.initial() : before.toString();
        for (var name : transitions) {
            var to = lifecycle.find(name).orElseThrow().to();
            tell(
                    record,
                    name,
                    version,
                    key,
                    Map.of(InherentEvents.FROM, from, InherentEvents.TO, to));
            from = to;
        }
    }

    /** That a record is gone for good. */
    public void deleted(RecordState record, long version, String key) {
        tell(record, "deleted", version, key, Map.of());
    }

    private static List<String> changedNames(RecordState record) {
        var names = new ArrayList<String>();
        for (var field : record.slots().changed()) {
            if (!field.isDerived()) {
                names.add(field.name());
            }
        }
        for (var part : record.object().parts()) {
            if (record.partStamp(part) > 0) {
                names.add(part.name());
            }
        }
        return names;
    }

    private boolean isHeard(RecordState record, String kind) {
        return listeners.hear(live, record.object().name() + "." + kind);
    }

    private void tell(
            RecordState record, String kind, long version, String key, Map<String, Object> more) {
        if (!isHeard(record, kind)) {
            return;
        }
        var data = new LinkedHashMap<String, @Nullable Object>();
        data.put(InherentEvents.KEY, key);
        data.put(InherentEvents.VERSION, version);
        data.putAll(more);
        store(record.object().name() + "." + kind, record, key, data);
    }

    private void store(
            String name,
            @Nullable RecordState about,
            @Nullable String key,
            Map<String, @Nullable Object> data) {
        events.add(
                transaction,
                new Event(
                        0,
                        WorkIds.next(),
                        name,
                        Event.Kind.RAISED,
                        origin.unit(),
                        about == null ? null : about.object().name(),
                        about == null ? null : about.id(),
                        key,
                        now,
                        origin.actor().name(),
                        origin.via(),
                        origin.depth(),
                        data));
        listeners.raised();
    }
}
