package sandpiper.engine.accounts;

import java.time.Clock;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.writer.Transactions;

/** The people, clients and roles of an instance. Safe for use by many threads. */
public final class Accounts {
    private final AccessStorage storage;
    private final AccessLog log;
    private final Users users;
    private final Clients clients;
    private final Roles roles;

    public Accounts(AccessStorage storage, Transactions transactions, Clock clock) {
        this.storage = storage;
        this.log = new AccessLog(storage, transactions, clock);
        this.users = new Users(storage, transactions, log);
        this.clients = new Clients(storage, transactions, log);
        this.roles = new Roles(storage, transactions, log);
    }

    public Users users() {
        return users;
    }

    public Clients clients() {
        return clients;
    }

    public Roles roles() {
        return roles;
    }

    public AccessLog log() {
        return log;
    }

    /** Another number than before whenever users, roles or clients were changed. */
    public long stamp() {
        return storage.stamp();
    }
}
