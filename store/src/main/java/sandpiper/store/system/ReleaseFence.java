package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import org.jooq.impl.DSL;
import sandpiper.engine.port.StorageException;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;

/**
 * Keeps releases and writes apart where many write at a time. Who writes holds one of many rows
 * that all have the number of the live release; who releases holds all of them. So a release waits
 * for what is being written, what comes then waits for the release, and no row is one that all
 * need.
 */
public final class ReleaseFence {
    /** As many rows as the first format of the tables has. */
    private static final int SLOTS = 64;

    private static final TableStatements TABLE = new TableStatements("sandpiper_fence");
    private static final Statement PASS =
            Sql.statement(TABLE.select("release", "format").where(Sql.is("slot")).forShare());
    private static final Statement CLOSE =
            Sql.statement(
                    TABLE.select("release", "format").orderBy(Sql.number("slot")).forUpdate());
    private static final Statement REFORMAT = TABLE.update(List.of("format"), DSL.noCondition());
    private static final Statement MOVE = TABLE.update(List.of("release"), DSL.noCondition());

    private ReleaseFence() {}

    /** What a row says: the live release, and the format of the service's tables. */
    private record Sign(int release, int format) {
        static Sign of(ResultSet row) throws SQLException {
            return new Sign(row.getInt(1), row.getInt(2));
        }
    }

    /**
     * Begins a piece of work on whatever release is live.
     *
     * @param format of the service's tables as this process knows them
     * @throws StorageException when a newer version of the service brought them to another one
     */
    public static void pass(SqlSession session, int format) {
        long slot = ThreadLocalRandom.current().nextInt(SLOTS);
        enter(session, session.first(PASS, Sign::of, slot).orElseThrow(), format);
    }

    /** Begins a release: nobody else writes until it ends. Otherwise as {@link #pass}. */
    public static void close(SqlSession session, int format) {
        enter(session, session.list(CLOSE, Sign::of).getFirst(), format);
    }

    private static void enter(SqlSession session, Sign sign, int format) {
        if (sign.format() != format) {
            throw new StorageException(
                    "A newer version of the service works on this database (its tables have format %d, this one knows %d); end this process and start the newer version."
                            .formatted(sign.format(), format),
                    new IllegalStateException());
        }
        session.release(sign.release());
    }

    /**
     * The service's tables have another format now: processes that do not know it write no more.
     */
    public static void reformat(SqlSession session, int format) {
        session.run(REFORMAT, format);
    }

    /** Makes another release the live one. */
    public static void move(SqlSession session, int release) {
        if (session.release() >= 0) {
            session.run(MOVE, release);
        }
    }
}
