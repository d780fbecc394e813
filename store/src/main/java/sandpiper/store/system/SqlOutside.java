package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import sandpiper.engine.port.OutsideStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** How outside services are reached and what they answered, in their tables. */
public final class SqlOutside implements OutsideStorage {
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS).build();

    private static final TableStatements REACHES = new TableStatements("sandpiper_reach");
    private static final String[] COLUMNS = {
        "setting",
        "address",
        "scheme",
        "user",
        "secret",
        "token_address",
        "scope",
        "changed_at",
        "changed_by"
    };
    private static final Statement ALL =
            Sql.statement(REACHES.select(COLUMNS).orderBy(Sql.column("setting")));
    private static final Statement FIND = REACHES.selectBy("setting", COLUMNS);
    private static final Statement PUT =
            REACHES.put(
                    List.of("setting"),
                    "address",
                    "scheme",
                    "user",
                    "secret",
                    "token_address",
                    "scope",
                    "changed_at",
                    "changed_by");
    private static final Statement REMOVE = REACHES.delete(Sql.is("setting"));

    private static final TableStatements ANSWERS = new TableStatements("sandpiper_outside_answer");
    private static final Statement KEPT =
            Sql.statement(
                    ANSWERS.select("content", "until").where(Sql.is("connection"), Sql.is("key")));
    private static final Statement KEEP =
            ANSWERS.put(List.of("connection", "key"), "content", "until");
    private static final Statement FORGET = ANSWERS.delete(Sql.column("until").lt(Sql.value()));

    @Override
    public List<Reach> reaches(Session session) {
        return SqlSession.of(session).list(ALL, SqlOutside::read);
    }

    @Override
    public Optional<Reach> reach(Session session, String setting) {
        return SqlSession.of(session).first(FIND, SqlOutside::read, setting);
    }

    private static Reach read(ResultSet row) throws SQLException {
        return new Reach(
                row.getString(1),
                row.getString(2),
                row.getString(3),
                row.getString(4),
                row.getString(5),
                row.getString(6),
                row.getString(7),
                TemporalType.instant(row.getLong(8)),
                row.getString(9));
    }

    @Override
    public void put(Transaction transaction, Reach reach) {
        SqlSession.of(transaction)
                .run(
                        PUT,
                        reach.setting(),
                        reach.address(),
                        reach.scheme(),
                        reach.user(),
                        reach.sealedSecret(),
                        reach.tokenAddress(),
                        reach.scope(),
                        TemporalType.micros(reach.changedAt()),
                        reach.changedBy());
    }

    @Override
    public boolean remove(Transaction transaction, String setting) {
        return SqlSession.of(transaction).run(REMOVE, setting) > 0;
    }

    @Override
    public Optional<Kept> kept(Session session, String connection, String key) {
        return SqlSession.of(session)
                .first(
                        KEPT,
                        row ->
                                new Kept(
                                        connection,
                                        key,
                                        JSON.readValue(row.getString(1), Object.class),
                                        TemporalType.instant(row.getLong(2))),
                        connection,
                        key);
    }

    @Override
    public void keep(Transaction transaction, Kept kept) {
        SqlSession.of(transaction)
                .run(
                        KEEP,
                        kept.connection(),
                        kept.key(),
                        JSON.writeValueAsString(kept.plain()),
                        TemporalType.micros(kept.until()));
    }

    @Override
    public void forgetBefore(Transaction transaction, Instant moment) {
        SqlSession.of(transaction).run(FORGET, TemporalType.micros(moment));
    }
}
