package sandpiper.store;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
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
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.TraceStorage;
import sandpiper.engine.port.TrafficStorage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.port.ViewStorage;
import sandpiper.engine.port.WebhookStorage;
import sandpiper.model.release.Release;
import sandpiper.store.sqlite.FileHold;
import sandpiper.store.sqlite.FileModes;
import sandpiper.store.record.SqlRecords;
import sandpiper.store.schema.SchemaChanger;
import sandpiper.store.schema.SystemTables;
import sandpiper.store.sqlite.SqliteDatabase;
import sandpiper.store.sql.SqlSession;
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
import sandpiper.store.system.SqlTraces;
import sandpiper.store.system.SqlTraffic;
import sandpiper.store.system.SqlViews;
import sandpiper.store.system.SqlWebhooks;

/** Everything in one SQLite file. */
public final class SqliteStorage implements Storage {
    private final SqliteDatabase database;
    private @Nullable Path temporary;
    private final DefinitionStorage definitions = new SqlDefinitions();
    private final HistoryStorage history = new SqlHistory();
    private final AccessStorage access = new SqlAccess();
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

    private final @Nullable FileHold hold;

    private SqliteStorage(SqliteDatabase database, @Nullable FileHold hold, Clock clock) {
        this.hold = hold;
        this.database = database;
        this.schema = new SchemaChanger(history, clock);
    }

    /**
     * Opens a file, makes it and its folder when they are not there, and brings an older one up to
     * date.
     */
    public static SqliteStorage open(Path file, Clock clock) {
        return open(file, clock, SqliteDatabase.USUAL_LONGEST_READ);
    }

    /**
     * The same.
     *
     * @param longestRead how long a read may take before it is stopped
     */
    public static SqliteStorage open(Path file, Clock clock, Duration longestRead) {
        // jOOQ greets on standard output otherwise.
        System.setProperty("org.jooq.no-logo", "true");
        System.setProperty("org.jooq.no-tips", "true");
        FileModes.makeFolder(Objects.requireNonNull(file.toAbsolutePath().getParent()));
        FileModes.make(file);
        FileModes.restrict(Path.of(file + "-wal"));
        FileModes.restrict(Path.of(file + "-shm"));
        return opened(file, FileHold.take(file), clock, longestRead);
    }

    private static SqliteStorage opened(
            Path file, @Nullable FileHold hold, Clock clock, Duration longestRead) {
        try {
            var database = SqliteDatabase.open(file, longestRead);
            try (SqlSession session = database.write()) {
                SystemTables.prepare(session);
                session.commit();
            }
            return new SqliteStorage(database, hold, clock);
        } catch (RuntimeException e) {
            if (hold != null) {
                hold.close();
            }
            throw e;
        }
    }

    /** An empty store that is gone when it is closed. */
    public static SqliteStorage temporary(Clock clock) {
        try {
            var folder = Files.createTempDirectory("sandpiper");
            // Nobody else knows of it.
            var storage =
                    opened(folder.resolve("data.db"), null, clock, SqliteDatabase.USUAL_LONGEST_READ);
            storage.temporary = folder;
            return storage;
        } catch (IOException e) {
            throw new UncheckedIOException("A temporary folder cannot be made.", e);
        }
    }

    @Override
    public Session snapshot() {
        return database.read();
    }

    @Override
    public Transaction begin(boolean reshaping) {
        return reshaping ? database.reshape() : database.write();
    }

    @Override
    public RecordStorage records(Release release) {
        return new SqlRecords(release);
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

    @Override
    public void backUp(Path to) {
        database.copy(to);
    }

    @Override
    public void close() {
        database.close();
        if (hold != null) {
            hold.close();
        }
        var folder = temporary;
        if (folder != null) {
            try (var files = Files.list(folder)) {
                for (var file : files.toList()) {
                    Files.deleteIfExists(file);
                }
                Files.deleteIfExists(folder);
            } catch (IOException e) {
                throw new UncheckedIOException("%s cannot be removed.".formatted(folder), e);
            }
        }
    }
}
