package sandpiper.engine.access;

import java.time.Instant;

/**
 * Somebody is signed in.
 *
 * @param id what it is called; not what its cookie holds
 * @param user the name of who it is
 * @param stamp of the password with which it began
 * @param address from which somebody signed in
 * @param agent what the browser calls itself, cut; may be empty
 * @param used when it was last used, exact to a minute
 */
public record OpenSession(
        String id,
        String user,
        String stamp,
        String address,
        String agent,
        Instant begun,
        Instant used) {}
