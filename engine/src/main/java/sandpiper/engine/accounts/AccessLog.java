package sandpiper.engine.accounts;

import java.time.Clock;
import java.util.List;
import sandpiper.engine.access.AccessEntry;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.writer.Transactions;

/** The log of who changed what of access, and who signed in. Safe for use by many threads. */
public final class AccessLog {
    private final AccessStorage storage;
    private final Transactions transactions;
    private final Clock clock;

    AccessLog(AccessStorage storage, Transactions transactions, Clock clock) {
        this.storage = storage;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** What was noted of late, newest first. */
    public List<AccessEntry> latest(int limit) {
        return transactions.read(session -> storage.entries(session, limit));
    }

    /**
     * Notes something.
     *
     * @param by who did it
     * @param what in a few words
     * @param subject the name of what was changed
     * @param detail never a secret; may be empty
     */
    public void note(String by, String what, String subject, String detail) {
        transactions.change(transaction -> note(transaction, by, what, subject, detail));
    }

    /** The same where nobody waits for it to be stored. */
    public void noteLater(String by, String what, String subject, String detail) {
        transactions.later(transaction -> note(transaction, by, what, subject, detail));
    }

    /** The same as part of the change that is noted. */
    public void note(
            Transaction transaction, String by, String what, String subject, String detail) {
        storage.addEntry(transaction, new AccessEntry(clock.instant(), by, what, subject, detail));
    }
}
