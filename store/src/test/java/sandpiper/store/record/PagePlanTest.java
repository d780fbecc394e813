package sandpiper.store.record;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.definition.Releases;
import sandpiper.engine.record.Query;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.store.SqliteStorage;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.sqlite.SqliteDialect;
import sandpiper.store.table.Tables;

/** How the database finds the records of a page: by which index, and what it looks up for each. */
@Tag("sqlite")
class PagePlanTest {
    private static final Map<String, String> MARINA =
            Map.of(
                    "m/package.yaml",
                    "package: m\nversion: 1\n",
                    "m/objects/pier.yaml",
                    """
                    object: Pier
                    key: code
                    fields: { code: { type: text, required: true } }
                    """,
                    "m/objects/berth.yaml",
                    """
                    object: Berth
                    key: code
                    fields:
                      code: { type: text, required: true }
                      pier: { type: reference, to: Pier }
                    """,
                    "m/objects/vessel.yaml",
                    """
                    object: Vessel
                    key: registration
                    fields: { registration: { type: text, required: true } }
                    """,
                    "m/objects/stay.yaml",
                    """
                    object: Stay
                    fields:
                      state: { type: choice, choices: [Requested, Departed] }
                      vessel: { type: reference, to: Vessel }
                      berth: { type: reference, to: Berth }
                    """,
                    "m/services/desk.yaml",
                    """
                    service: desk
                    version: 1
                    resources:
                      stays:
                        object: Stay
                        query: { fields: [state, vessel, berth], filter: [state, vessel, berth.pier] }
                    """);

    @TempDir Path folder;

    private SqliteStorage storage;
    private Engine engine;

    @BeforeEach
    void open() {
        storage = SqliteStorage.open(folder.resolve("data.db"), Clock.systemUTC());
        engine = new Engine(storage, Clock.systemUTC());
        engine.drafts().push(MARINA, Actor.SYSTEM);
        assertThat(engine.drafts().check().errors()).isEmpty();
        engine.releases().release("", Releases.Accepted.NOTHING, Actor.SYSTEM);
    }

    @AfterEach
    void close() {
        engine.close();
    }

    /** What the database says it will do, step by step. */
    private List<String> plan(String filter, boolean berthsAreFew) {
        var release = engine.live().release();
        var stay = release.object("Stay");
        var checked = ConditionChecker.check(filter, release.recordType(stay), Clock.systemUTC());
        var query =
                new Query(
                        stay,
                        release.everythingOf(stay),
                        ((Checked.Accepted) checked).condition(),
                        null,
                        List.of(),
                        false,
                        null,
                        0,
                        50,
                        false,
                        Query.Retired.WITHOUT);
        var writer = new QuerySql(release, query, _ -> berthsAreFew);
        var joins = new Joins(release, Tables.of(stay));
        var where = writer.filter(joins);
        var columns = new ArrayList<org.jooq.Field<?>>();
        columns.add(joins.column(ColumnRef.own(Tables.NUMBER)));
        try (var session = storage.snapshot()) {
            return SqlSession.of(session)
                    .list(
                            Statement.written(
                                    "explain query plan "
                                            + writer.page(joins, where, columns)
                                                    .in(SqliteDialect.INSTANCE)),
                            row -> row.getString(4),
                            writer.pageValues());
        }
    }

    @Test
    void theKeyOfAReferenceIsFoundByTheReferencesIndex() {
        assertThat(plan("vessel = \"GH-101\"", false))
                .anySatisfy(step -> assertThat(step).contains("reference_", "vessel=?"))
                .noneSatisfy(step -> assertThat(step).startsWith("SCAN"));
    }

    @Test
    void aStateIsToldApartFurtherWithinItsIndex() {
        assertThat(plan("state = \"Requested\" and berth.pier = \"N\"", true))
                .anySatisfy(step -> assertThat(step).contains("COVERING INDEX", "state=?"))
                .anySatisfy(step -> assertThat(step).contains("LIST SUBQUERY"))
                .noneSatisfy(step -> assertThat(step).contains("TEMP B-TREE"));
    }

    @Test
    void manyRecordsBehindAReferenceAreNotListed() {
        assertThat(plan("state = \"Requested\" and berth.pier = \"N\"", false))
                .anySatisfy(step -> assertThat(step).contains("INTEGER PRIMARY KEY"))
                .noneSatisfy(step -> assertThat(step).contains("LIST SUBQUERY"));
    }
}
