package sandpiper.store.postgres;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import sandpiper.engine.port.Storage.Peer;
import sandpiper.engine.port.StorageException;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;

/**
 * The processes of the service that work on a database. Each says every few seconds that it is
 * there, and asks for the time while it is at it.
 */
public final class ProcessRegister implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(ProcessRegister.class);
    private static final Duration BETWEEN_BEATS = Duration.ofSeconds(3);

    /** Whoever said nothing for so long is not there any more. */
    private static final Duration SILENT = Duration.ofSeconds(15);

    /** A difference between clocks that people should know of. */
    private static final Duration ODD = Duration.ofSeconds(5);

    /** The first format that has the table. */
    private static final int FIRST_FORMAT = 17;

    private static final TableStatements TABLE = new TableStatements("sandpiper_process");
    private static final Statement TIME =
            Statement.written(
                    "select cast(extract(epoch from clock_timestamp()) * 1000000 as bigint)");
    private static final Statement PUT =
            TABLE.put(List.of("id"), "name", "format", "since", "beat");
    private static final Statement REMOVE = TABLE.delete(Sql.is("id"));
    private static final Statement FORGET = TABLE.delete(Sql.number("beat").lt(Sql.count()));
    private static final Statement LIVE =
            Sql.statement(
                    TABLE.select("id", "name", "since")
                            .where(Sql.number("beat").ge(Sql.count()))
                            .orderBy(Sql.number("since"), Sql.column("id")));
    private static final Statement OLDER =
            Sql.statement(
                    TABLE.select("name")
                            .where(Sql.number("beat").ge(Sql.count()))
                            .and(Sql.number("format").ne(Sql.count()))
                            .orderBy(Sql.column("name")));

    private final PostgresDatabase database;
    private final int format;
    private final SharedClock clock;
    private final String id = UUID.randomUUID().toString();
    private final String name = name();
    private final Instant since;
    private final Thread thread;
    private volatile boolean closed;
    private volatile boolean odd;

    private ProcessRegister(PostgresDatabase database, int format, Clock own) {
        this.database = database;
        this.format = format;
        this.clock = new SharedClock(own);
        ask();
        this.since = clock.instant();
        beat();
        this.thread = Thread.ofPlatform().daemon().name("sandpiper-register").unstarted(this::run);
    }

    /**
     * Enters this process.
     *
     * @param format the format of the tables that it knows
     * @param own the clock of this machine
     */
    public static ProcessRegister enter(PostgresDatabase database, int format, Clock own) {
        var register = new ProcessRegister(database, format, own);
        register.thread.start();
        return register;
    }

    /**
     * Looks whether the tables can be brought to another format.
     *
     * @param there the format they have
     * @throws StorageException when processes work on them that do not know the other
     */
    public static void requireNoOther(SqlSession session, int there, int format) {
        if (there < FIRST_FORMAT || there == format) {
            return;
        }
        long heard = session.number(TIME) - SILENT.toNanos() / 1_000;
        var others = session.list(OLDER, row -> row.getString(1), heard, (long) format);
        if (!others.isEmpty()) {
            throw new StorageException(
                    "An older version of the service works on this database (%s); this one needs other tables. End the older ones first; one that was killed is forgotten after %d seconds."
                            .formatted(String.join(", ", others), SILENT.toSeconds()),
                    new IllegalStateException("format " + there));
        }
    }

    /** The time all processes go by. */
    public Clock clock() {
        return clock;
    }

    /** Those that are there now. */
    public List<Peer> all(SqlSession session) {
        long heard = session.number(TIME) - SILENT.toNanos() / 1_000;
        return session.list(
                LIVE,
                row ->
                        new Peer(
                                row.getString(2),
                                TemporalType.instant(row.getLong(3)),
                                row.getString(1).equals(id)),
                heard);
    }

    private static String name() {
        long number = ProcessHandle.current().pid();
        try {
            return InetAddress.getLocalHost().getHostName() + "/" + number;
        } catch (UnknownHostException _) {
            return "process " + number;
        }
    }

    private void run() {
        while (!closed) {
            try {
                Thread.sleep(BETWEEN_BEATS);
                beat();
            } catch (InterruptedException _) {
                return;
            } catch (RuntimeException e) {
                // Who works on records says so; here the next beat is another try.
                LOG.debug("The register of processes cannot be written now", e);
            }
        }
    }

    private void ask() {
        try (var session = database.draw()) {
            time(session);
        }
    }

    /** What the database's clock says, in microseconds. */
    private long time(SqlSession session) {
        var asked = clock.own();
        long micros = session.number(TIME);
        note(clock.set(TemporalType.instant(micros), asked, clock.own()));
        return micros;
    }

    private void beat() {
        try (var session = database.draw()) {
            long now = time(session);
            session.run(FORGET, now - Duration.ofDays(1).toNanos() / 1_000);
            session.run(PUT, id, name, format, TemporalType.micros(since), now);
            session.commit();
        }
    }

    private void note(Duration ahead) {
        boolean now = ahead.abs().compareTo(ODD) > 0;
        if (now && !odd) {
            LOG.warn(
                    "The clock of this machine is {} s {} the database's; the service goes by the"
                            + " database's.",
                    ahead.abs().toSeconds(),
                    ahead.isNegative() ? "ahead of" : "behind");
        }
        odd = now;
    }

    @Override
    public void close() {
        closed = true;
        thread.interrupt();
        try {
            thread.join(Duration.ofSeconds(5));
        } catch (InterruptedException _) {
            Thread.currentThread().interrupt();
        }
        try (var session = database.draw()) {
            session.run(REMOVE, id);
            session.commit();
        } catch (RuntimeException e) {
            LOG.debug("This process is forgotten in a while", e);
        }
    }
}
