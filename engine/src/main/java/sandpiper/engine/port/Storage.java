package sandpiper.engine.port;

import java.nio.file.Path;
import sandpiper.model.release.Release;

/** Where everything is kept. */
public interface Storage extends AutoCloseable {
    /** A read session on one consistent state; never waits for the writer. To be closed. */
    Session snapshot();

    /**
     * Begins the one write transaction. Only the writer's thread calls this, and ends it before the
     * next.
     *
     * @param reshaping whether tables will be changed, so that links between them are checked at
     *     the end only
     */
    Transaction begin(boolean reshaping);

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
