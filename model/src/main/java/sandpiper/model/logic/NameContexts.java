package sandpiper.model.logic;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.Member;
import sandpiper.logic.type.RecordType;
import sandpiper.model.definition.HandlerDefinition;
import sandpiper.model.release.EventType;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;

/** What the logic of an object may name, place by place. */
public final class NameContexts {
    private NameContexts() {}

    /** For formulas and conditions of a record, or of its line items when there is a part. */
    public static NameContext of(Release release, ObjectType object, @Nullable Part part) {
        var record = release.recordType(object);
        return part == null
                ? NameContext.of(release.world(), record)
                : NameContext.ofItem(release.world(), record.part(part), record);
    }

    /** For checks and rules, which see how the record was before. */
    public static NameContext ofChange(Release release, ObjectType object) {
        return NameContext.ofChange(release.world(), release.recordType(object));
    }

    /**
     * For what works a field out. A line item's field that follows that of its record is called as
     * it, so the item's own is not meant.
     */
    static NameContext ofFormula(
            Release release, ObjectType object, @Nullable Part part, Field field) {
        var setting = of(release, object, part);
        var source = field.logic().source();
        var item = setting.self();
        return source == null || !source.ofRecord() || item == null
                ? setting
                : new NameContext(
                        setting.world(),
                        new WithoutMembers(item),
                        setting.owner(),
                        setting.changes(),
                        setting.item(),
                        setting.names());
    }

    /** Records whose members are not meant, so that names lead past them. */
    private record WithoutMembers(RecordType records) implements RecordType {
        @Override
        public String name() {
            return records.name();
        }

        @Override
        public Optional<Member> member(String member) {
            return Optional.empty();
        }

        @Override
        public Collection<String> memberNames() {
            return List.of();
        }

        @Override
        public Optional<String> keyMember() {
            return records.keyMember();
        }
    }

    /** For what a reference offers. */
    public static NameContext ofOffer(
            Release release, ObjectType object, @Nullable Part part, ObjectType target) {
        return of(release, object, part).lookingAt(release.recordType(target));
    }

    /** For the body of a function: the record it is called on, if any, and its parameters. */
    public static NameContext ofFunction(
            Release release, ObjectType object, ObjectFunctionType function) {
        var names = new LinkedHashMap<String, LogicType>();
        function.parameters().forEach(one -> names.put(one.name(), one.type()));
        return ofRecordOrNone(release, object, function.definition().onRecord()).with(names);
    }

    /** For a handler: the record its events are about, if it is one, and what they tell. */
    public static NameContext ofHandler(
            Release release, ObjectType object, HandlerDefinition handler, List<EventType> events) {
        var told = told(release, events);
        return ofRecordOrNone(release, object, isAboutRecord(object, handler, events))
                .with(
                        Map.of(
                                handler.batch() ? "events" : "event",
                                handler.batch() ? new LogicType.ListOf(told) : told));
    }

    /** Whether a handler is run for one record of its object. */
    static boolean isAboutRecord(
            ObjectType object, HandlerDefinition handler, List<EventType> events) {
        return !handler.batch()
                && !events.isEmpty()
                && events.stream().allMatch(one -> object.name().equals(one.about()));
    }

    private static NameContext ofRecordOrNone(
            Release release, ObjectType object, boolean onRecord) {
        return onRecord
                ? of(release, object, null)
                : new NameContext(release.world(), null, null, false, null, Map.of());
    }

    /** What all of the events tell, and what is known of every event. */
    private static LogicType.ContextOf told(Release release, List<EventType> events) {
        var entries = new LinkedHashMap<String, LogicType>();
        entries.put("type", LogicType.Simple.TEXT);
        entries.put("at", LogicType.Simple.DATE_TIME);
        entries.put("by", LogicType.Simple.TEXT);
        for (var event : events) {
            event.fields()
                    .entries()
                    .forEach(one -> entries.putIfAbsent(one.name(), one.type().logicType(release)));
        }
        for (var event : events) {
            entries.keySet()
                    .removeIf(name ->
                            !List.of("type", "at", "by").contains(name)
                                    && event.fields().entry(name).isEmpty());
        }
        return new LogicType.ContextOf(entries);
    }
}
