package sandpiper.engine.port;

import java.time.Instant;
import java.util.Optional;

/** Answers kept so that a repeated request is answered alike and done once. */
public interface AnswerStorage {
    /**
     * An answer that was given.
     *
     * @param fingerprint of the request it answered
     * @param text the answer in the protocol's own form
     * @param rights what its caller was granted, as {@link sandpiper.engine.access.Actor#rights}
     *     tells it; empty when it was kept by an earlier version
     */
    record StoredAnswer(String fingerprint, String text, String rights) {}

    Optional<StoredAnswer> find(Session session, String actor, String key);

    void put(Transaction transaction, String actor, String key, StoredAnswer answer, Instant at);

    /** Forgets answers given before a moment. */
    void forgetBefore(Transaction transaction, Instant moment);
}
