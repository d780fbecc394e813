package sandpiper.engine.accounts;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.accounts.AccountException.Reason;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.writer.Transactions;
import sandpiper.logic.Quoted;

/** Outside systems that call services. Safe for use by many threads. */
public final class Clients {
    private final AccessStorage storage;
    private final Transactions transactions;
    private final AccessLog log;

    Clients(AccessStorage storage, Transactions transactions, AccessLog log) {
        this.storage = storage;
        this.transactions = transactions;
        this.log = log;
    }

    /** All, by name. */
    public List<StoredClient> all() {
        return transactions.read(storage::clients);
    }

    public Optional<StoredClient> find(String name) {
        return transactions.read(session -> storage.client(session, name));
    }

    /** What clients may do, in the words of the log. */
    public static String described(List<String> grants) {
        return grants.isEmpty() ? "no grants" : "may " + String.join(", ", grants);
    }

    /**
     * Makes one.
     *
     * @throws AccountException when the name is taken
     */
    public void add(Actor actor, StoredClient client) {
        transactions.change(transaction -> {
            if (storage.client(transaction, client.name()).isPresent()) {
                throw new AccountException(
                        Reason.CONFLICT, "There is a client %s already.".formatted(client.name()));
            }
            AccountNames.requireFree(transaction, storage, client.name());
            storage.putClient(transaction, client);
            log.note(
                    transaction,
                    actor.name(),
                    "client made",
                    client.name(),
                    described(client.grants()));
        });
    }

    /**
     * Changes one.
     *
     * @param what in the words of the log, {@code detail} with more of it
     * @return as it is then
     * @throws AccountException when there is none
     */
    public StoredClient change(
            Actor actor,
            String name,
            String what,
            String detail,
            UnaryOperator<StoredClient> change) {
        return transactions.write(transaction -> {
            var changed =
                    storage.client(transaction, name)
                            .map(change)
                            .orElseThrow(() ->
                                    new AccountException(
                                            Reason.MISSING,
                                            "There is no client %s.".formatted(Quoted.of(name))));
            storage.putClient(transaction, changed);
            log.note(transaction, actor.name(), what, name, detail);
            return changed;
        });
    }

    /** Takes one away; one that is not there is not there afterwards either. */
    public void remove(Actor actor, String name) {
        transactions.change(transaction -> {
            storage.removeClient(transaction, name);
            log.note(transaction, actor.name(), "client removed", name, "");
        });
    }

    /** Notes that one was used, for people; nobody waits for it. */
    public void used(String name, Instant at) {
        transactions.later(transaction -> storage.touchClient(transaction, name, at));
    }
}
