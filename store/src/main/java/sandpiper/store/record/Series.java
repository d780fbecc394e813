package sandpiper.store.record;

import java.util.function.Function;
import sandpiper.model.release.ObjectType;
import sandpiper.store.sql.SqlSession;

/** The counts that numbers of records are made of. Safe for use by many threads. */
public interface Series {
    /** The next of a series, from 1; none is given twice. */
    long next(SqlSession session, ObjectType object, String series);

    /**
     * Reads something beside a transaction, where that keeps those apart that add records at the
     * same time: a look at the place in an index where all of them add makes all but one give way.
     */
    <T> T beside(SqlSession session, Function<SqlSession, T> reading);
}
