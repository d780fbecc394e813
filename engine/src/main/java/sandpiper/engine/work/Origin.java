package sandpiper.engine.work;

import java.time.ZoneId;
import java.util.UUID;
import sandpiper.engine.access.Actor;
import sandpiper.engine.command.Request;

/**
 * Where a unit of work comes from.
 *
 * @param via the way in, for the history
 * @param textual whether every value may come as text
 * @param whole whether it may give what else only the service gives
 * @param zone in which today is meant
 * @param unit identifies the work, for what it raises
 * @param tried whether nothing of it will be kept
 * @param depth how many events led to it, each by a handler of the one before
 */
public record Origin(
        Actor actor,
        String via,
        boolean textual,
        boolean whole,
        ZoneId zone,
        UUID unit,
        boolean tried,
        int depth) {
    public static Origin of(Request request) {
        return new Origin(
                request.actor(),
                request.via(),
                request.textual(),
                request.leave().whole() || request.actor().equals(Actor.SYSTEM),
                request.command().object().zone(),
                WorkIds.next(),
                false,
                0);
    }

    /** The same work, of which nothing will be kept. */
    public Origin asTrial() {
        return new Origin(actor, via, textual, whole, zone, unit, true, depth);
    }
}
