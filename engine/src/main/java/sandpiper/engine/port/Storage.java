package sandpiper.engine.port;

import java.nio.file.Path;
import java.util.Map;
import sandpiper.model.release.Release;

/** Where everything is kept. */
public interface Storage extends AutoCloseable {
    /** A read session on one consistent state; never waits for the writer. To be closed. */
    Session snapshot();

    /** What keeps the data, with its version, as in {@code PostgreSQL 15.18}. */
    String storedIn();

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
