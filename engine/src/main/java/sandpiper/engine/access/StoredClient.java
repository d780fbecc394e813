package sandpiper.engine.access;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * An outside system.
 *
 * @param grants operations of services, as {@code berth-desk/stays/create} with {@code *} for all
 * @param lastUsed {@code null} until it has signed in
 * @param previous the secret before, which goes on being right until {@code previousUntil}; {@code
 *     null} when there is none
 * @param disabled whether it may do nothing for now
 * @param callsPerMinute how often it may call; 0 for what is usual in this instance
 */
public record StoredClient(
        String name,
        String label,
        StoredSecret secret,
        List<String> grants,
        Instant createdAt,
        @Nullable Instant lastUsed,
        @Nullable StoredSecret previous,
        @Nullable Instant previousUntil,
        boolean disabled,
        int callsPerMinute) {
    public StoredClient {
        grants = List.copyOf(grants);
    }

    /** A client nobody has used yet. */
    public static StoredClient made(
            String name,
            String label,
            StoredSecret secret,
            List<String> grants,
            Instant at,
            int callsPerMinute) {
        return new StoredClient(
                name, label, secret, grants, at, null, null, null, false, callsPerMinute);
    }

    /** With a new secret; the one before is right until then. */
    public StoredClient rotated(StoredSecret now, Instant until) {
        return new StoredClient(
                name,
                label,
                now,
                grants,
                createdAt,
                lastUsed,
                secret,
                until,
                disabled,
                callsPerMinute);
    }

    /** With other words, grants, state or limit; {@code null} leaves one as it is. */
    public StoredClient changed(
            @Nullable String newLabel,
            @Nullable List<String> newGrants,
            @Nullable Boolean nowDisabled,
            @Nullable Integer newCallsPerMinute) {
        return new StoredClient(
                name,
                newLabel == null ? label : newLabel,
                secret,
                newGrants == null ? grants : newGrants,
                createdAt,
                lastUsed,
                previous,
                previousUntil,
                nowDisabled == null ? disabled : nowDisabled,
                newCallsPerMinute == null ? callsPerMinute : newCallsPerMinute);
    }
}
