package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.DefinitionStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage.Shared;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import sandpiper.store.table.Tables;

/** Draft files, releases and revisions in their tables. */
public final class SqlDefinitions implements DefinitionStorage {
    private static final TableStatements DRAFT = new TableStatements("sandpiper_draft");
    private static final TableStatements VERSION = new TableStatements("sandpiper_draft_version");
    private static final TableStatements RELEASE = new TableStatements("sandpiper_release");
    private static final TableStatements FILE = new TableStatements("sandpiper_release_file");
    private static final String[] FILE_STATE = {"path", "content", "changed_at", "changed_by"};
    private static final Statement DRAFT_FILES =
            Sql.statement(DRAFT.select("path", "content").orderBy(Sql.column("path")));
    private static final Statement DRAFT_FILE = DRAFT.selectBy("path", FILE_STATE);
    private static final Statement PUT_DRAFT_FILE =
            DRAFT.put(List.of("path"), "content", "changed_at", "changed_by");
    private static final Statement REMOVE_DRAFT_FILE = DRAFT.delete(Sql.is("path"));
    private static final Statement ADD_VERSION =
            VERSION.insert("path", "content", "changed_at", "changed_by", "kept_at");
    private static final Statement KEEP_VERSIONS = VERSION.keepNewest();
    private static final Statement LAST_VERSION =
            Sql.statement(
                    VERSION.select("kept_at")
                            .where(Sql.is("path"))
                            .orderBy(Sql.number("number").desc())
                            .limit(DSL.inline(1)));
    private static final Statement VERSIONS =
            Sql.statement(
                    VERSION.select(FILE_STATE)
                            .orderBy(Sql.number("number").desc())
                            .limit(Sql.count()));
    private static final Statement VERSIONS_OF =
            Sql.statement(
                    VERSION.select(FILE_STATE)
                            .where(Sql.is("path"))
                            .orderBy(Sql.number("number").desc())
                            .limit(Sql.count()));
    private static final TableStatements ORIGIN = new TableStatements("sandpiper_package_origin");
    private static final Statement ORIGINS =
            Sql.statement(
                    ORIGIN.select(
                                    "package",
                                    "version",
                                    "content",
                                    "manifest",
                                    "signer",
                                    "unpacked_at",
                                    "unpacked_by")
                            .orderBy(Sql.number("unpacked_at").desc()));
    private static final Statement PUT_ORIGIN =
            ORIGIN.put(
                    List.of("package", "content"),
                    "version",
                    "manifest",
                    "signer",
                    "unpacked_at",
                    "unpacked_by");
    private static final String[] RELEASE_COLUMNS = {
        "number", "released_at", "released_by", "note", "changes"
    };
    private static final Statement RELEASES =
            Sql.statement(RELEASE.select(RELEASE_COLUMNS).orderBy(Sql.number("number").desc()));
    private static final Statement NEWEST_RELEASE =
            Sql.statement(Tables.sql().select(DSL.max(Sql.number("number"))).from(RELEASE.table()));
    private static final Statement ADD_RELEASE = RELEASE.insert(RELEASE_COLUMNS);
    private static final Statement FILES_OF =
            Sql.statement(
                    FILE.select("path", "content")
                            .where(Sql.is("release"))
                            .orderBy(Sql.column("path")));
    private static final Statement ADD_FILE = FILE.insert("release", "path", "content");

    private static final TableStatements REVISION =
            new TableStatements("sandpiper_contract_revision");
    private static final List<String> REVISION_KEY = List.of("service", "version", "number");
    private static final Statement REVISIONS =
            Sql.statement(
                    REVISION.select(
                                    "service",
                                    "version",
                                    "number",
                                    "places",
                                    "ended_at",
                                    "ended_by")
                            .orderBy(
                                    Sql.column("service"),
                                    Sql.column("version"),
                                    Sql.column("number")));
    private static final Statement PUT_REVISION =
            REVISION.put(REVISION_KEY, "places", "ended_at", "ended_by");

    private static final int MOST_VERSIONS = 1_000;

    @Override
    public Map<String, String> draft(Session session) {
        var files = new LinkedHashMap<String, String>();
        SqlSession.of(session)
                .list(DRAFT_FILES, row -> files.put(row.getString(1), row.getString(2)) == null);
        return files;
    }

    private static DraftFileState readFile(ResultSet row) throws SQLException {
        return new DraftFileState(
                row.getString(1),
                row.getString(2),
                TemporalType.instant(row.getLong(3)),
                row.getString(4));
    }

    @Override
    public Optional<DraftFileState> draftFile(Session session, String path) {
        return SqlSession.of(session).first(DRAFT_FILE, SqlDefinitions::readFile, path);
    }

    @Override
    public void keepDraftVersion(Transaction transaction, DraftFileState file, Instant at) {
        var sql = SqlSession.of(transaction);
        sql.run(
                ADD_VERSION,
                file.path(),
                file.text(),
                TemporalType.micros(file.at()),
                file.by(),
                TemporalType.micros(at));
        sql.run(KEEP_VERSIONS, MOST_VERSIONS);
    }

    @Override
    public Optional<Instant> lastDraftVersion(Session session, String path) {
        return SqlSession.of(session)
                .first(LAST_VERSION, row -> TemporalType.instant(row.getLong(1)), path);
    }

    @Override
    public List<DraftFileState> draftVersions(Session session, @Nullable String path, int limit) {
        var sql = SqlSession.of(session);
        return path == null
                ? sql.list(VERSIONS, SqlDefinitions::readFile, limit)
                : sql.list(VERSIONS_OF, SqlDefinitions::readFile, path, limit);
    }

    @Override
    public void putDraftFile(
            Transaction transaction, String path, String text, Instant at, String by) {
        SqlSession.of(transaction).run(PUT_DRAFT_FILE, path, text, TemporalType.micros(at), by);
    }

    @Override
    public void removeDraftFile(Transaction transaction, String path) {
        SqlSession.of(transaction).run(REMOVE_DRAFT_FILE, path);
    }

    @Override
    public List<StoredRelease> releases(Session session) {
        return SqlSession.of(session)
                .list(
                        RELEASES,
                        row ->
                                new StoredRelease(
                                        row.getInt(1),
                                        TemporalType.instant(row.getLong(2)),
                                        row.getString(3),
                                        row.getString(4),
                                        TextList.read(row.getString(5))));
    }

    @Override
    public Optional<Integer> newestRelease(Session session) {
        return SqlSession.of(session)
                .first(NEWEST_RELEASE, row -> row.getInt(1))
                .filter(number -> number > 0);
    }

    @Override
    public Map<String, String> filesOf(Session session, int release) {
        var files = new LinkedHashMap<String, String>();
        SqlSession.of(session)
                .list(
                        FILES_OF,
                        row -> files.put(row.getString(1), row.getString(2)) == null,
                        release);
        return files;
    }

    @Override
    public void putRelease(
            Transaction transaction, StoredRelease release, Map<String, String> files) {
        var sql = SqlSession.of(transaction);
        sql.run(
                ADD_RELEASE,
                release.number(),
                TemporalType.micros(release.at()),
                release.by(),
                release.note(),
                TextList.write(release.changes()));
        files.forEach((path, text) -> sql.run(ADD_FILE, release.number(), path, text));
        ReleaseFence.move(sql, release.number());
        Stamps.raise(sql, Shared.RELEASE);
    }

    @Override
    public List<StoredRevision> revisions(Session session) {
        return SqlSession.of(session).list(REVISIONS, SqlDefinitions::readRevision);
    }

    private static StoredRevision readRevision(ResultSet row) throws SQLException {
        long ended = row.getLong(5);
        var endedAt = row.wasNull() ? null : TemporalType.instant(ended);
        return new StoredRevision(
                row.getString(1),
                row.getInt(2),
                row.getInt(3),
                TextList.read(row.getString(4)),
                endedAt,
                row.getString(6));
    }

    @Override
    public void putRevision(Transaction transaction, StoredRevision revision) {
        var ended = revision.endedAt();
        Stamps.raise(SqlSession.of(transaction), Shared.REVISIONS);
        SqlSession.of(transaction)
                .run(
                        PUT_REVISION,
                        revision.service(),
                        revision.version(),
                        revision.number(),
                        TextList.write(revision.places()),
                        ended == null ? null : TemporalType.micros(ended),
                        revision.endedBy());
    }

    @Override
    public List<StoredOrigin> origins(Session session) {
        return SqlSession.of(session)
                .list(
                        ORIGINS,
                        row ->
                                new StoredOrigin(
                                        row.getString(1),
                                        row.getString(2),
                                        row.getString(3),
                                        row.getString(4),
                                        row.getString(5),
                                        TemporalType.instant(row.getLong(6)),
                                        row.getString(7)));
    }

    @Override
    public void putOrigin(Transaction transaction, StoredOrigin origin) {
        SqlSession.of(transaction)
                .run(
                        PUT_ORIGIN,
                        origin.packageName(),
                        origin.content(),
                        origin.version(),
                        origin.manifest(),
                        origin.signer(),
                        TemporalType.micros(origin.at()),
                        origin.by());
    }
}
