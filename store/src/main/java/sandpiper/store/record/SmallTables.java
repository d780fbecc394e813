package sandpiper.store.record;

import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.impl.DSL;
import sandpiper.model.release.ObjectType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.table.Sql;
import sandpiper.store.table.Tables;

/**
 * Which objects have so few records that all of them that meet a condition can be listed for a
 * query before it begins. Rows are then held against the list, which is a third of the time of
 * looking up another record for each row.
 */
final class SmallTables {
    private static final long MOST_RECORDS = 5_000;
    private static final long NANOS_BETWEEN_LOOKS = Duration.ofMinutes(1).toNanos();

    private final Map<String, Look> looks = new ConcurrentHashMap<>();

    private record Look(boolean small, long at) {}

    boolean isSmall(SqlSession session, ObjectType object) {
        long now = System.nanoTime();
        var last = looks.get(object.name());
        if (last != null && now - last.at() < NANOS_BETWEEN_LOOKS) {
            return last.small();
        }
        // The highest number says no less than how many there are, and is found at once.
        long highest =
                session.number(
                        Tables.sql()
                                .select(
                                        DSL.coalesce(
                                                DSL.max(Sql.number(Tables.NUMBER)), DSL.inline(0L)))
                                .from(Sql.table(Tables.of(object))));
        boolean small = highest <= MOST_RECORDS;
        looks.put(object.name(), new Look(small, now));
        return small;
    }
}
