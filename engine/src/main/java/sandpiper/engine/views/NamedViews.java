package sandpiper.engine.views;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.ViewStorage;
import sandpiper.engine.record.NamedView;
import sandpiper.engine.writer.Transactions;

/** The views people keep of lists. Safe for use by many threads. */
public final class NamedViews {
    /** Views of an object that one person sees. */
    public static final int MOST = 100;

    private final ViewStorage storage;
    private final Transactions transactions;

    public NamedViews(ViewStorage storage, Transactions transactions) {
        this.storage = storage;
        this.transactions = transactions;
    }

    /** Views of an object: those of a user and the shared ones, by name. */
    public List<NamedView> of(String object, String user) {
        return transactions.read(session -> storage.of(session, object, user));
    }

    /**
     * Keeps a view, in the place of the one with its owner and name.
     *
     * @param user who keeps it
     * @return whether there was room for it
     */
    public boolean put(String user, NamedView view) {
        return transactions.write(transaction -> {
            boolean room = storage.of(transaction, view.object(), user).size() < MOST;
            if (room) {
                storage.put(transaction, view);
            }
            return room;
        });
    }

    /**
     * Takes a view away.
     *
     * @param owner {@code null} for a shared one
     * @return whether there was one
     */
    public boolean remove(String object, @Nullable String owner, String name) {
        return transactions.write(transaction -> storage.remove(transaction, object, owner, name));
    }
}
