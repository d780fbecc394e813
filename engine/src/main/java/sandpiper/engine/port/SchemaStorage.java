package sandpiper.engine.port;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.change.ReleaseChange;

/** Makes the tables follow a release. */
public interface SchemaStorage {
    /**
     * What happens to values of what is removed, and of what comes back.
     *
     * @param keeping as what they are kept aside, or {@code null} to drop them at once
     * @param comebacks what was kept aside and may come back
     */
    record Aside(@Nullable Keeping keeping, List<Comeback> comebacks) {
        public Aside {
            comebacks = List.copyOf(comebacks);
        }
    }

    /**
     * As what values are kept aside.
     *
     * @param release the last one that has them
     */
    record Keeping(int release, Instant at) {}

    /**
     * What a change would do to the data.
     *
     * @param losses what would be lost or kept aside, a sentence each; needs somebody to accept it
     * @param obstacles why it cannot be done with the data as it is, a sentence each
     * @param comebacks what would come back of what was kept aside, or not, a sentence each
     */
    record Effects(List<String> losses, List<String> obstacles, List<String> comebacks) {
        public Effects {
            losses = List.copyOf(losses);
            obstacles = List.copyOf(obstacles);
            comebacks = List.copyOf(comebacks);
        }
    }

    /** Looks at the data and tells what a change would do to it; changes nothing. */
    Effects effects(Session session, ReleaseChange change, Aside aside);

    /** Changes the tables, keeping the data. Only in a transaction begun for reshaping. */
    void apply(Transaction transaction, ReleaseChange change, Aside aside);
}
