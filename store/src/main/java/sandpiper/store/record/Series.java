package sandpiper.store.record;

import sandpiper.model.release.ObjectType;
import sandpiper.store.sql.SqlSession;

/** The counts that numbers of records are made of. Safe for use by many threads. */
public interface Series {
    /** The next of a series, from 1; none is given twice. */
    long next(SqlSession session, ObjectType object, String series);
}
