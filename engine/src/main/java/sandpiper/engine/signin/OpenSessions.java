package sandpiper.engine.signin;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import sandpiper.engine.access.OpenSession;
import sandpiper.engine.port.SignInStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.writer.Transactions;

/**
 * The sessions that are open, whichever process of the service somebody signed in at and however
 * often it was started since. What a cookie holds arrives here hashed. Safe for any thread.
 */
public final class OpenSessions {
    /** However busy it is, a session ends. */
    private static final Duration LONGEST = Duration.ofHours(24);

    private static final Duration LONGEST_PAUSE = Duration.ofHours(12);

    /** For people a minute is exact enough; noting it at each request would cost a commit. */
    private static final Duration NOTED_EVERY = Duration.ofMinutes(1);

    private final SignInStorage storage;
    private final Transactions transactions;
    private final Clock clock;

    public OpenSessions(SignInStorage storage, Transactions transactions, Clock clock) {
        this.storage = storage;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** Opens one for whoever has a token, by its hash. */
    public void begin(String hash, OpenSession session) {
        transactions.change(transaction -> storage.addSession(transaction, hash, session));
    }

    /** The one of a token, by its hash, unless it is over; notes that it was used. */
    public Optional<OpenSession> find(String hash) {
        var found =
                transactions.read(session -> storage.session(session, hash)).filter(this::isOpen);
        var now = clock.instant();
        if (found.isPresent() && found.get().used().plus(NOTED_EVERY).isBefore(now)) {
            transactions.later(transaction -> storage.touchSession(transaction, hash, now));
        }
        return found;
    }

    /** Those of a person, the one used last first. */
    public List<OpenSession> of(String user) {
        return transactions.read(session -> storage.sessionsOf(session, user)).stream()
                .filter(this::isOpen)
                .toList();
    }

    private boolean isOpen(OpenSession session) {
        var now = clock.instant();
        return session.begun().plus(LONGEST).isAfter(now)
                && session.used().plus(LONGEST_PAUSE).isAfter(now);
    }

    /** Ends one of a person's; tells whether there was such a one. */
    public boolean end(String user, String id) {
        return transactions.write(transaction -> storage.removeSession(transaction, user, id));
    }

    /** Ends the one of a token, by its hash. */
    public void end(String hash) {
        transactions.change(transaction -> storage.removeSession(transaction, hash));
    }

    /** Forgets those that are over, as part of a transaction. */
    public void forgetOld(Transaction transaction) {
        var now = clock.instant();
        storage.forgetSessions(transaction, now.minus(LONGEST), now.minus(LONGEST_PAUSE));
    }
}
