package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.DefinitionStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;

/** Draft files and releases in their tables. */
public final class SqlDefinitions implements DefinitionStorage {
    private static final int MOST_VERSIONS = 1_000;

    @Override
    public Map<String, String> draft(Session session) {
        var files = new LinkedHashMap<String, String>();
        SqlSession.of(session)
                .list(
                        "select path, content from sandpiper_draft order by path",
                        row -> files.put(row.getString(1), row.getString(2)) == null);
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
        return SqlSession.of(session)
                .first(
                        "select path, content, changed_at, changed_by from sandpiper_draft where"
                                + " path = ?",
                        SqlDefinitions::readFile,
                        path);
    }

    @Override
    public void keepDraftVersion(Transaction transaction, DraftFileState file, Instant at) {
        var sql = SqlSession.of(transaction);
        sql.run(
                "insert into sandpiper_draft_version (path, content, changed_at, changed_by,"
                        + " kept_at) values (?, ?, ?, ?, ?)",
                file.path(),
                file.text(),
                TemporalType.micros(file.at()),
                file.by(),
                TemporalType.micros(at));
        sql.run(
                "delete from sandpiper_draft_version where number <= (select max(number) from"
                        + " sandpiper_draft_version) - ?",
                MOST_VERSIONS);
    }

    @Override
    public Optional<Instant> lastDraftVersion(Session session, String path) {
        return SqlSession.of(session)
                .first(
                        "select kept_at from sandpiper_draft_version where path = ? order by number"
                                + " desc limit 1",
                        row -> TemporalType.instant(row.getLong(1)),
                        path);
    }

    @Override
    public List<DraftFileState> draftVersions(Session session, @Nullable String path, int limit) {
        var sql = SqlSession.of(session);
        var columns = "select path, content, changed_at, changed_by from sandpiper_draft_version ";
        return path == null
                ? sql.list(
                        columns + "order by number desc limit ?", SqlDefinitions::readFile, limit)
                : sql.list(
                        columns + "where path = ? order by number desc limit ?",
                        SqlDefinitions::readFile,
                        path,
                        limit);
    }

    @Override
    public void putDraftFile(
            Transaction transaction, String path, String text, Instant at, String by) {
        SqlSession.of(transaction)
                .run(
                        "insert or replace into sandpiper_draft (path, content, changed_at,"
                                + " changed_by) values (?, ?, ?, ?)",
                        path,
                        text,
                        TemporalType.micros(at),
                        by);
    }

    @Override
    public void removeDraftFile(Transaction transaction, String path) {
        SqlSession.of(transaction).run("delete from sandpiper_draft where path = ?", path);
    }

    @Override
    public List<StoredRelease> releases(Session session) {
        return SqlSession.of(session)
                .list(
                        "select number, released_at, released_by, note, changes from"
                                + " sandpiper_release order by number desc",
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
                .first("select max(number) from sandpiper_release", row -> row.getInt(1))
                .filter(number -> number > 0);
    }

    @Override
    public Map<String, String> filesOf(Session session, int release) {
        var files = new LinkedHashMap<String, String>();
        SqlSession.of(session)
                .list(
                        "select path, content from sandpiper_release_file where release = ? order"
                                + " by path",
                        row -> files.put(row.getString(1), row.getString(2)) == null,
                        release);
        return files;
    }

    @Override
    public void putRelease(
            Transaction transaction, StoredRelease release, Map<String, String> files) {
        var sql = SqlSession.of(transaction);
        sql.run(
                "insert into sandpiper_release (number, released_at, released_by, note, changes)"
                        + " values (?, ?, ?, ?, ?)",
                release.number(),
                TemporalType.micros(release.at()),
                release.by(),
                release.note(),
                TextList.write(release.changes()));
        files.forEach((path, text) ->
                sql.run(
                        "insert into sandpiper_release_file (release, path, content) values (?, ?,"
                                + " ?)",
                        release.number(),
                        path,
                        text));
    }
}
