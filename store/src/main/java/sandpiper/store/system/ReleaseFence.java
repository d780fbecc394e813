package sandpiper.store.system;

import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import org.jooq.impl.DSL;
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
            Sql.statement(TABLE.select("release").where(Sql.is("slot")).forShare());
    private static final Statement CLOSE =
            Sql.statement(TABLE.select("release").orderBy(Sql.number("slot")).forUpdate());
    private static final Statement MOVE = TABLE.update(List.of("release"), DSL.noCondition());

    private ReleaseFence() {}

    /** Begins a piece of work on whatever release is live. */
    public static void pass(SqlSession session) {
        long slot = ThreadLocalRandom.current().nextInt(SLOTS);
        session.release((int) session.number(PASS, slot));
    }

    /** Begins a release: nobody else writes until it ends. */
    public static void close(SqlSession session) {
        session.release(session.list(CLOSE, row -> row.getInt(1)).getFirst());
    }

    /** Makes another release the live one. */
    public static void move(SqlSession session, int release) {
        if (session.release() >= 0) {
            session.run(MOVE, release);
        }
    }
}
