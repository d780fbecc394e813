package sandpiper.engine.signin;

import java.util.Optional;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.CountedTries;
import sandpiper.engine.port.SignInStorage;
import sandpiper.engine.writer.Transactions;

/**
 * Counts that all processes of the service share: whoever tries passwords has as many tries at ten
 * processes as at one.
 */
public final class SharedTries implements CountedTries {
    private final SignInStorage storage;
    private final Transactions transactions;

    public SharedTries(SignInStorage storage, Transactions transactions) {
        this.storage = storage;
        this.transactions = transactions;
    }

    @Override
    public @Nullable Tries change(String key, UnaryOperator<@Nullable Tries> change) {
        var seen = transactions.read(session -> storage.tries(session, key)).orElse(null);
        if (seen != null && seen.equals(change.apply(seen))) {
            // Who is kept from trying on costs no commit, however often.
            return seen;
        }
        return transactions
                .write(transaction -> {
                    var after = change.apply(storage.tries(transaction, key).orElse(null));
                    if (after == null) {
                        storage.removeTries(transaction, key);
                    } else {
                        storage.putTries(transaction, key, after);
                    }
                    return Optional.ofNullable(after);
                })
                .orElse(null);
    }
}
