package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import sandpiper.engine.event.Webhook;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage.Shared;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.port.WebhookStorage;
import sandpiper.model.type.TemporalType;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;

/** Webhooks in their table. */
public final class SqlWebhooks implements WebhookStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_webhook");
    private static final String[] COLUMNS = {
        "name",
        "label",
        "address",
        "events",
        "filter",
        "secret",
        "previous_secret",
        "previous_until",
        "disabled"
    };
    private static final Statement ALL =
            Sql.statement(TABLE.select(COLUMNS).orderBy(Sql.column("name")));
    private static final Statement FIND = TABLE.selectBy("name", COLUMNS);
    private static final Statement PUT =
            TABLE.put(
                    List.of("name"),
                    "label",
                    "address",
                    "events",
                    "filter",
                    "secret",
                    "previous_secret",
                    "previous_until",
                    "disabled");
    private static final Statement REMOVE = TABLE.delete(Sql.is("name"));

    @Override
    public List<Webhook> all(Session session) {
        return SqlSession.of(session).list(ALL, SqlWebhooks::read);
    }

    @Override
    public Optional<Webhook> find(Session session, String name) {
        return SqlSession.of(session).first(FIND, SqlWebhooks::read, name);
    }

    private static Webhook read(ResultSet row) throws SQLException {
        long until = row.getLong(8);
        boolean hasUntil = !row.wasNull();
        return new Webhook(
                row.getString(1),
                row.getString(2),
                row.getString(3),
                TextList.read(row.getString(4)),
                row.getString(5),
                row.getString(6),
                row.getString(7),
                hasUntil ? TemporalType.instant(until) : null,
                row.getLong(9) != 0);
    }

    @Override
    public void put(Transaction transaction, Webhook webhook) {
        var until = webhook.previousUntil();
        Stamps.raise(SqlSession.of(transaction), Shared.WEBHOOKS);
        SqlSession.of(transaction)
                .run(
                        PUT,
                        webhook.name(),
                        webhook.label(),
                        webhook.address(),
                        TextList.write(webhook.events()),
                        webhook.filter(),
                        webhook.sealedSecret(),
                        webhook.previousSecret(),
                        until == null ? null : (Long) TemporalType.micros(until),
                        webhook.disabled());
    }

    @Override
    public void remove(Transaction transaction, String name) {
        Stamps.raise(SqlSession.of(transaction), Shared.WEBHOOKS);
        SqlSession.of(transaction).run(REMOVE, name);
    }
}
