package sandpiper.engine.port;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.NamedView;

/** Views of lists that are kept by name. */
public interface ViewStorage {
    /** Views of an object: those of a user and the shared ones, by name. */
    List<NamedView> of(Session session, String object, String owner);

    /** Views of all objects and people. */
    List<NamedView> all(Session session);

    /** Puts a view in the place of the one with its owner and name, if there is one. */
    void put(Transaction transaction, NamedView view);

    /**
     * Takes a view away.
     *
     * @param owner {@code null} for a shared one
     * @return whether there was one
     */
    boolean remove(Transaction transaction, String object, @Nullable String owner, String name);
}
