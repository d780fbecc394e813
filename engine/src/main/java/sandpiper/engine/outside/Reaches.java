package sandpiper.engine.outside;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.accounts.AccessLog;
import sandpiper.engine.port.OutsideStorage;
import sandpiper.engine.port.OutsideStorage.Reach;
import sandpiper.engine.writer.Transactions;

/** How an instance reaches services outside. Safe for use by many threads. */
public final class Reaches {
    private final OutsideStorage storage;
    private final Transactions transactions;
    private final AccessLog log;
    private final Clock clock;

    public Reaches(OutsideStorage storage, Transactions transactions, AccessLog log, Clock clock) {
        this.storage = storage;
        this.transactions = transactions;
        this.log = log;
        this.clock = clock;
    }

    /** All, by their settings. */
    public List<Reach> all() {
        return transactions.read(storage::reaches);
    }

    /** The one of a setting, or nothing. */
    public Optional<Reach> find(String setting) {
        return transactions.read(session -> storage.reach(session, setting));
    }

    /** What is given of a way; see {@link Reach}. */
    public record Given(
            String address,
            String scheme,
            String user,
            @Nullable String sealedSecret,
            String tokenAddress,
            String scope) {}

    /** Puts a way in the place of what there was, and notes who did. */
    public Reach put(String setting, Given given, String by) {
        var reach =
                new Reach(
                        setting,
                        given.address(),
                        given.scheme(),
                        given.user(),
                        given.sealedSecret(),
                        given.tokenAddress(),
                        given.scope(),
                        clock.instant(),
                        by);
        transactions.change(transaction -> {
            storage.put(transaction, reach);
            log.note(
                    transaction,
                    by,
                    "changed how a service outside is reached",
                    setting,
                    "%s, %s".formatted(given.address(), given.scheme()));
        });
        return reach;
    }

    /** Takes a way away; tells whether there was one. */
    public boolean remove(String setting, String by) {
        return transactions.write(transaction -> {
            boolean there = storage.remove(transaction, setting);
            if (there) {
                log.note(
                        transaction, by, "took away how a service outside is reached", setting, "");
            }
            return there;
        });
    }
}
