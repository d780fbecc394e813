package sandpiper.engine.port;

import java.util.List;
import sandpiper.model.change.ReleaseChange;

/** Makes the tables follow a release. */
public interface SchemaStorage {
    /**
     * What a change would do to the data.
     *
     * @param losses what would be lost, a sentence each; needs somebody to accept it
     * @param obstacles why it cannot be done with the data as it is, a sentence each
     */
    record Effects(List<String> losses, List<String> obstacles) {
        public Effects {
            losses = List.copyOf(losses);
            obstacles = List.copyOf(obstacles);
        }
    }

    /** Looks at the data and tells what a change would do to it; changes nothing. */
    Effects effects(Session session, ReleaseChange change);

    /** Changes the tables, keeping the data. Only in a transaction begun for reshaping. */
    void apply(Transaction transaction, ReleaseChange change);
}
