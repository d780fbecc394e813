package sandpiper.engine.settings;

import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.writer.Transactions;

/**
 * Values that belong to this instance and are kept with its data, such as what its keys are made
 * of. Safe for use by many threads.
 */
public final class InstanceSettings {
    private final AccessStorage storage;
    private final Transactions transactions;

    public InstanceSettings(AccessStorage storage, Transactions transactions) {
        this.storage = storage;
        this.transactions = transactions;
    }

    /** The value of a name; when there is none, the other one is kept and given. */
    public String get(String name, String otherwise) {
        return transactions.write(transaction -> storage.setting(transaction, name, otherwise));
    }

    /** Keeps a value in the place of what it was. */
    public void put(String name, String value) {
        transactions.change(transaction -> storage.putSetting(transaction, name, value));
    }
}
