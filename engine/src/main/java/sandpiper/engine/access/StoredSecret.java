package sandpiper.engine.access;

import org.jspecify.annotations.Nullable;

/**
 * What is kept of a secret.
 *
 * @param sealed the secret itself, so that only this instance can open it, for a client that proves
 *     with digests that it knows it; {@code null} for all others
 */
public record StoredSecret(String hash, @Nullable String sealed) {}
