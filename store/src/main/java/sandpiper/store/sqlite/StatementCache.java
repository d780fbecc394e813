package sandpiper.store.sqlite;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.LinkedHashMap;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The prepared statements of one connection by their text; the one unused for longest goes when
 * there are too many.
 */
final class StatementCache {
    /**
     * Statements of one connection: those of a release of a hundred objects, with room. A statement
     * takes some kilobytes.
     */
    private static final int MOST = 1_000;

    private static final Logger LOG = LoggerFactory.getLogger(StatementCache.class);

    private final Map<String, PreparedStatement> kept = new LinkedHashMap<>(64, 0.75f, true);

    PreparedStatement get(Connection connection, String sql) throws SQLException {
        var there = kept.get(sql);
        if (there != null) {
            return there;
        }
        if (kept.size() >= MOST) {
            var oldest = kept.entrySet().iterator();
            oldest.next().getValue().close();
            oldest.remove();
        }
        var prepared = connection.prepareStatement(sql);
        kept.put(sql, prepared);
        return prepared;
    }

    /** Prepares a statement anew when it is next needed. */
    void forget(String sql) {
        var gone = kept.remove(sql);
        if (gone != null) {
            try {
                gone.close();
            } catch (SQLException e) {
                // It was broken already; a new one is made next time.
                LOG.debug("A failed statement could not be closed", e);
            }
        }
    }
}
