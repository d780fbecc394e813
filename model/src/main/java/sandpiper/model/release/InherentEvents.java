package sandpiper.model.release;

import java.util.ArrayList;
import java.util.List;
import sandpiper.model.Names;
import sandpiper.model.definition.FieldLogic;
import sandpiper.model.definition.Lifecycle;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TextType;

/**
 * The events that records of every object raise without anybody writing them: created, changed,
 * retired, restored, deleted, and each transition. They tell which record it was; what is in it is
 * read by those who may.
 */
public final class InherentEvents {
    /** The key of the record, as addresses have it. */
    public static final String KEY = "key";

    /** The version it has since. */
    public static final String VERSION = "version";

    /** Names of the fields that are different. */
    public static final String CHANGED = "changed";

    /** The state before a transition. */
    public static final String FROM = "from";

    /** The state after a transition. */
    public static final String TO = "to";

    private static final List<String> KINDS =
            List.of("created", "changed", "retired", "restored", "deleted");

    /** Whether a transition of this name would raise an event of another. */
    public static boolean isTaken(String transition) {
        return KINDS.contains(transition);
    }

    private InherentEvents() {}

    /** All of an object; {@code Stay.created} to {@code Stay.checkOut}. */
    public static List<EventType> of(ObjectType object) {
        var events = new ArrayList<EventType>();
        for (var kind : KINDS) {
            events.add(
                    event(
                            object,
                            kind,
                            "%s %s".formatted(object.label(), kind),
                            "A record of %s was %s.".formatted(object.label(), kind),
                            kind.equals("changed")));
        }
        var lifecycle = object.lifecycle();
        if (lifecycle != null) {
            for (var transition : lifecycle.transitions()) {
                events.add(transition(object, transition));
            }
        }
        return events;
    }

    private static EventType event(
            ObjectType object, String kind, String label, String describe, boolean changes) {
        var fields = new ArrayList<Parameter>();
        fields.add(parameter(KEY, "The record's key.", TextType.plain()));
        fields.add(parameter(VERSION, "Its version since.", NumberType.integer()));
        if (changes) {
            fields.add(
                    new Parameter(
                            CHANGED,
                            "Changed",
                            "Names of the fields and line items that are different.",
                            true,
                            new ValueType.Many(single(CHANGED, TextType.plain()))));
        }
        return new EventType(
                object.name() + "." + kind,
                object.packageName(),
                label,
                describe,
                object.name(),
                new ValueType.Group(fields),
                true);
    }

    private static EventType transition(ObjectType object, Lifecycle.Transition transition) {
        return new EventType(
                object.name() + "." + transition.name(),
                object.packageName(),
                "%s: %s".formatted(object.label(), transition.label()),
                "A record of %s went to %s.".formatted(object.label(), transition.to()),
                object.name(),
                new ValueType.Group(
                        List.of(
                                parameter(KEY, "The record's key.", TextType.plain()),
                                parameter(VERSION, "Its version since.", NumberType.integer()),
                                parameter(FROM, "The state before.", TextType.plain()),
                                parameter(TO, "The state since.", TextType.plain()))),
                true);
    }

    private static Parameter parameter(String name, String describe, FieldType type) {
        return new Parameter(name, Names.label(name), describe, true, single(name, type));
    }

    private static ValueType.Single single(String name, FieldType type) {
        return new ValueType.Single(plain(name, type));
    }

    /** A field that stands for a value and is kept nowhere. */
    private static Field plain(String name, FieldType type) {
        return new Field(
                0,
                name,
                Names.label(name),
                null,
                type,
                true,
                false,
                false,
                null,
                null,
                FieldLogic.NONE,
                null,
                false);
    }
}
