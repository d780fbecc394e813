package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** How outside services are reached, and answers of theirs that are kept. */
public interface OutsideStorage {
    /**
     * How an instance reaches a service.
     *
     * @param setting by which connections name it
     * @param scheme how callers are known: {@code none}, {@code basic}, {@code bearer}, {@code
     *     client-credentials}
     * @param user the name that goes with the secret; empty for none
     * @param sealedSecret sealed, or {@code null} for none
     * @param tokenAddress where access tokens are had; empty for none
     * @param scope that is asked for with a token; empty for none
     */
    record Reach(
            String setting,
            String address,
            String scheme,
            String user,
            @Nullable String sealedSecret,
            String tokenAddress,
            String scope,
            Instant changedAt,
            String changedBy) {}

    /**
     * An answer that is kept.
     *
     * @param key what was asked
     * @param plain texts, numbers, booleans, maps and lists
     * @param until when it is not used any more
     */
    record Kept(String connection, String key, Object plain, Instant until) {}

    /** All ways to reach services, by their settings. */
    List<Reach> reaches(Session session);

    /** The way of a setting, or nothing. */
    Optional<Reach> reach(Session session, String setting);

    /** Puts a way in the place of the one of its setting. */
    void put(Transaction transaction, Reach reach);

    /** Takes the way of a setting away; tells whether there was one. */
    boolean remove(Transaction transaction, String setting);

    /** What was kept, whether or not its time is over. */
    Optional<Kept> kept(Session session, String connection, String key);

    /** Keeps an answer in the place of an earlier one. */
    void keep(Transaction transaction, Kept kept);

    /** Forgets answers whose time was over before a moment. */
    void forgetBefore(Transaction transaction, Instant moment);
}
