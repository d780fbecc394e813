package sandpiper.server.settings;

import java.time.Instant;

/**
 * Says that this is no instance of its own but a copy of one that is served beside it, to rehearse
 * on. There is a bean of it on copies only.
 *
 * @param place from the root of the service, without a slash at the end
 * @param made when it was copied
 * @param changes files of definitions that differ from what is live
 * @param by who rehearses
 */
public record Rehearsed(String place, Instant made, int changes, String by) {
    /** Where copies are served that people and clients try. */
    public static final String PLACE = "/rehearsal";
}
