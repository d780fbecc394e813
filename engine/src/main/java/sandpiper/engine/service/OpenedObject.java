package sandpiper.engine.service;

import java.util.Locale;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectAccess;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;

/**
 * The records of an object in the hands of somebody with roles. For one release; immutable.
 *
 * @param rights all that is granted, together
 */
public record OpenedObject(Release release, Actor actor, ObjectType type, ObjectAccess rights)
        implements Grants {
    /** Those of an object as its roles let somebody have them, which may be not at all. */
    public static OpenedObject of(Release release, Actor actor, ObjectType type) {
        return new OpenedObject(release, actor, type, actor.on(type.name()));
    }

    /**
     * Lets only those go on who may do something with at least some of the records.
     *
     * @throws DeniedException for all others
     */
    public OpenedObject require(Action action) {
        scope(action);
        return this;
    }

    /**
     * The records an action reaches.
     *
     * @throws DeniedException when the action is not granted at all
     */
    public RecordScope scope(Action action) {
        return rights.scope(action)
                .orElseThrow(() ->
                        new DeniedException(
                                DeniedException.Reason.NOT_GRANTED,
                                "Your roles do not let you %s %s."
                                        .formatted(
                                                action.name().toLowerCase(Locale.ROOT),
                                                type.plural())));
    }

    /** Transitions and functions are changes here. */
    @Override
    public RecordScope granted(Right right) {
        return switch (right) {
            case Right.Of(var action) -> scope(action);
            case Right.Calling _ -> scope(Action.EDIT);
        };
    }

    @Override
    public RecordScope shown() {
        return RecordScope.ALL;
    }

    /** Whether records are seen at all. */
    public boolean sees() {
        return rights.may(Action.VIEW);
    }

    /** The fields that are seen. */
    public FieldTree seen() {
        return rights.seen(release.everythingOf(type));
    }

    /** The fields that can be given. */
    public FieldTree writable() {
        return rights.writable(release.everythingOf(type));
    }

    /** The fields that can be given to a new record. */
    public FieldTree givable() {
        return rights.givable(release.everythingOf(type));
    }

    /** Whether people may be told what a record of another object is called. */
    public boolean tells(@Nullable ObjectType target) {
        if (target == null) {
            return false;
        }
        var there = actor.on(target.name());
        return there.seesAll()
                && target.titleField()
                        .filter(title -> !there.hidden().contains(title.name()))
                        .isPresent();
    }

    /**
     * A command within what is granted.
     *
     * @param via the way in, for the history
     * @throws DeniedException when something that it needs is not granted at all
     */
    public Request request(RecordCommand command, String via, boolean traced) {
        return new Request(
                command,
                actor,
                via,
                true,
                traced,
                null,
                before(command),
                after(command),
                false,
                Leave.NONE);
    }
}
