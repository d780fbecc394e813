package sandpiper.engine.port;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import sandpiper.model.release.Release;

/** Where everything is kept. */
public interface Storage extends AutoCloseable {
    /** A read session on one consistent state; never waits for the writer. To be closed. */
    Session snapshot();

    /** What keeps the data, with its version, as in {@code PostgreSQL 15.18}. */
    String storedIn();

    /** The clock that all processes go by that share the data, whatever their machines say. */
    Clock clock();

    /**
     * A process of the service that works on the data.
     *
     * @param name of its machine, with its number there
     * @param own whether it is this one
     */
    record Peer(String name, Instant since, boolean own) {}

    /** The processes that work on the data, in the order in which they began. */
    List<Peer> peers(Session session);

    /** How many transactions can write at a time; the writer has as many threads. */
    int writers();

    /**
     * Begins to write. As many as {@link #writers} says are open at a time, each used by one
     * thread; what cannot be written beside another fails with a {@link ConflictException}.
     *
     * @param reshaping whether tables will be changed; nobody else writes then
     */
    Transaction begin(boolean reshaping);

    /**
     * The number of the live release; 0 before the first. It stays so until the transaction ends,
     * whoever else releases.
     */
    int release(Transaction transaction);

    /** What processes keep in memory that another may change. */
    enum Shared {
        RELEASE,
        REVISIONS,
        ACCESS,
        WEBHOOKS,
        SETTINGS
    }

    /**
     * A number for each of what another process may have changed, which is another one when it did;
     * empty where no other process writes.
     */
    Map<Shared, Long> stamps(Session session);

    /** Access to the records of a release. Costly to make, so it is made once for each release. */
    RecordStorage records(Release release);

    DefinitionStorage definitions();

    SchemaStorage schema();

    HistoryStorage history();

    AccessStorage access();

    SignInStorage signIns();

    AnswerStorage answers();

    TraceStorage traces();

    TrafficStorage traffic();

    EventStorage events();

    ScheduleStorage schedules();

    WebhookStorage webhooks();

    RunStorage runs();

    ViewStorage views();

    OutsideStorage outside();

    RecomputationStorage recomputations();

    KeptStorage kept();

    FileStorage files();

    /**
     * Writes a copy of everything as it is at one moment; whoever reads or writes goes on
     * meanwhile.
     *
     * @param to a file that is not there yet
     */
    void backUp(Path to);

    @Override
    void close();
}
