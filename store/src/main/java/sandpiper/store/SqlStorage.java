package sandpiper.store;

import java.time.Clock;
import sandpiper.engine.port.AccessStorage;
import sandpiper.engine.port.AnswerStorage;
import sandpiper.engine.port.DefinitionStorage;
import sandpiper.engine.port.EventStorage;
import sandpiper.engine.port.FileStorage;
import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.port.KeptStorage;
import sandpiper.engine.port.OutsideStorage;
import sandpiper.engine.port.RecomputationStorage;
import sandpiper.engine.port.RecordStorage;
import sandpiper.engine.port.RunStorage;
import sandpiper.engine.port.ScheduleStorage;
import sandpiper.engine.port.SchemaStorage;
import sandpiper.engine.port.SignInStorage;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.TraceStorage;
import sandpiper.engine.port.TrafficStorage;
import sandpiper.engine.port.ViewStorage;
import sandpiper.engine.port.WebhookStorage;
import sandpiper.model.release.Release;
import sandpiper.store.record.Series;
import sandpiper.store.record.SqlRecords;
import sandpiper.store.schema.SchemaChanger;
import sandpiper.store.system.SqlAccess;
import sandpiper.store.system.SqlAnswers;
import sandpiper.store.system.SqlDefinitions;
import sandpiper.store.system.SqlEvents;
import sandpiper.store.system.SqlFiles;
import sandpiper.store.system.SqlHistory;
import sandpiper.store.system.SqlKept;
import sandpiper.store.system.SqlOutside;
import sandpiper.store.system.SqlRecomputations;
import sandpiper.store.system.SqlRuns;
import sandpiper.store.system.SqlSchedules;
import sandpiper.store.system.SqlSignIns;
import sandpiper.store.system.SqlTraces;
import sandpiper.store.system.SqlTraffic;
import sandpiper.store.system.SqlViews;
import sandpiper.store.system.SqlWebhooks;

/** What both kinds of storage share: everything but how sessions are come by. */
abstract class SqlStorage implements Storage {
    private final DefinitionStorage definitions = new SqlDefinitions();
    private final HistoryStorage history = new SqlHistory();
    private final AccessStorage access = new SqlAccess();
    private final SignInStorage signIns = new SqlSignIns();
    private final AnswerStorage answers = new SqlAnswers();
    private final SqlTraces traces = new SqlTraces();
    private final SqlTraffic traffic = new SqlTraffic();
    private final SqlEvents events = new SqlEvents();
    private final SqlSchedules schedules = new SqlSchedules();
    private final SqlWebhooks webhooks = new SqlWebhooks();
    private final SqlRuns runs = new SqlRuns();
    private final SqlViews views = new SqlViews();
    private final SqlOutside outside = new SqlOutside();
    private final SqlRecomputations recomputations = new SqlRecomputations();
    private final SqlKept kept = new SqlKept();
    private final SqlFiles files = new SqlFiles();
    private final SchemaStorage schema;

    private final Series series;

    /** Numbers of records are made of what {@code series} gives. */
    SqlStorage(Clock clock, Series series) {
        this.series = series;
        this.schema = new SchemaChanger(history, clock);
    }

    @Override
    public RecordStorage records(Release release) {
        return new SqlRecords(release, series);
    }

    @Override
    public DefinitionStorage definitions() {
        return definitions;
    }

    @Override
    public SchemaStorage schema() {
        return schema;
    }

    @Override
    public HistoryStorage history() {
        return history;
    }

    @Override
    public AccessStorage access() {
        return access;
    }

    @Override
    public SignInStorage signIns() {
        return signIns;
    }

    @Override
    public AnswerStorage answers() {
        return answers;
    }

    @Override
    public TraceStorage traces() {
        return traces;
    }

    @Override
    public TrafficStorage traffic() {
        return traffic;
    }

    @Override
    public EventStorage events() {
        return events;
    }

    @Override
    public ScheduleStorage schedules() {
        return schedules;
    }

    @Override
    public WebhookStorage webhooks() {
        return webhooks;
    }

    @Override
    public RunStorage runs() {
        return runs;
    }

    @Override
    public OutsideStorage outside() {
        return outside;
    }

    @Override
    public ViewStorage views() {
        return views;
    }

    @Override
    public RecomputationStorage recomputations() {
        return recomputations;
    }

    @Override
    public KeptStorage kept() {
        return kept;
    }

    @Override
    public FileStorage files() {
        return files;
    }
}
