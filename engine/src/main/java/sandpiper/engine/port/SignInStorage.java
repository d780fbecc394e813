package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import sandpiper.engine.access.CountedTries.Tries;
import sandpiper.engine.access.OpenSession;

/** Sessions of people, by the hash of the token their cookie holds, and counts of tries. */
public interface SignInStorage {
    void addSession(Transaction transaction, String hash, OpenSession session);

    Optional<OpenSession> session(Session session, String hash);

    /** Those of a person, the one used last first. */
    List<OpenSession> sessionsOf(Session session, String user);

    void touchSession(Transaction transaction, String hash, Instant used);

    void removeSession(Transaction transaction, String hash);

    /** Takes away one of a person's; tells whether there was such a one. */
    boolean removeSession(Transaction transaction, String user, String id);

    /** Forgets those that began, or were last used, before a moment. */
    void forgetSessions(Transaction transaction, Instant begunBefore, Instant usedBefore);

    Optional<Tries> tries(Session session, String key);

    void putTries(Transaction transaction, String key, Tries tries);

    void removeTries(Transaction transaction, String key);

    /** Forgets tries of which the last was before a moment. */
    void forgetTries(Transaction transaction, Instant lastBefore);
}
