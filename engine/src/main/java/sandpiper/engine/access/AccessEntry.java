package sandpiper.engine.access;

import java.time.Instant;

/**
 * A change of who may do what.
 *
 * @param what such as {@code client changed}
 * @param subject the user, role or client it is about
 * @param detail what changed in a few words, never a secret; may be empty
 */
public record AccessEntry(Instant at, String actor, String what, String subject, String detail) {}
