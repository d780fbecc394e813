package sandpiper.engine.settings;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import sandpiper.engine.accounts.AccessLog;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.writer.Transactions;

/**
 * Values that belong to this instance and are kept with its data, such as what its keys are made
 * of. Safe for use by many threads.
 */
public final class InstanceSettings {
    private final AccessStorage storage;
    private final Transactions transactions;
    private final AccessLog log;
    private final List<Runnable> listeners = new CopyOnWriteArrayList<>();

    public InstanceSettings(AccessStorage storage, Transactions transactions, AccessLog log) {
        this.storage = storage;
        this.transactions = transactions;
        this.log = log;
    }

    /** Is told when another process may have changed values. */
    public void whenChangedElsewhere(Runnable told) {
        listeners.add(told);
    }

    /** Another process changed values. */
    public void changedElsewhere() {
        listeners.forEach(Runnable::run);
    }

    /** The value of a name; when there is none, the other one is kept and given. */
    public String get(String name, String otherwise) {
        return transactions.write(transaction -> storage.setting(transaction, name, otherwise));
    }

    /**
     * Keeps a value in the place of what it was, and notes that with it.
     *
     * @param by who wants it
     * @param what in the words of the log, {@code subject} what it was done to
     */
    public void put(String name, String value, String by, String what, String subject) {
        transactions.change(transaction -> {
            storage.putSetting(transaction, name, value);
            log.note(transaction, by, what, subject, "");
        });
    }
}
