package sandpiper.store.system;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Objects;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.port.ViewStorage;
import sandpiper.engine.record.Figures;
import sandpiper.engine.record.NamedView;
import sandpiper.engine.record.NamedView.Chart;
import sandpiper.store.sql.SqlSession;
import sandpiper.store.sql.Statement;
import sandpiper.store.table.Sql;
import sandpiper.store.table.TableStatements;

/** Named views in their table; a shared one has no owner's name. */
public final class SqlViews implements ViewStorage {
    private static final TableStatements TABLE = new TableStatements("sandpiper_view");
    private static final String[] COLUMNS = {
        "object", "owner", "name", "filter", "search", "sort", "retired", "columns", "chart"
    };
    private static final Statement ALL =
            Sql.statement(
                    TABLE.select(COLUMNS)
                            .orderBy(
                                    Sql.column("object"), Sql.column("name"), Sql.column("owner")));
    private static final Statement OF =
            Sql.statement(
                    TABLE.select(COLUMNS)
                            .where(
                                    Sql.is("object"),
                                    Sql.column("owner").in(Sql.value(), Sql.value()))
                            .orderBy(Sql.column("name"), Sql.column("owner")));
    private static final Statement PUT =
            TABLE.put(
                    List.of("object", "owner", "name"),
                    "filter",
                    "search",
                    "sort",
                    "retired",
                    "columns",
                    "chart");
    private static final Statement REMOVE =
            TABLE.delete(DSL.and(Sql.is("object"), Sql.is("owner"), Sql.is("name")));

    private static final String SHARED = "";

    /** Stands where a chart has no step or counts; no field is called so. */
    private static final String NONE = "-";

    @Override
    public List<NamedView> of(Session session, String object, String owner) {
        return SqlSession.of(session).list(OF, SqlViews::read, object, owner, SHARED);
    }

    @Override
    public List<NamedView> all(Session session) {
        return SqlSession.of(session).list(ALL, SqlViews::read);
    }

    private static NamedView read(ResultSet row) throws SQLException {
        var owner = row.getString(2);
        return new NamedView(
                row.getString(1),
                owner.equals(SHARED) ? null : owner,
                row.getString(3),
                row.getString(4),
                row.getString(5),
                row.getString(6),
                row.getString(7),
                TextList.read(row.getString(8)),
                chart(TextList.read(row.getString(9))));
    }

    private static @Nullable Chart chart(List<String> written) {
        return written.isEmpty()
                ? null
                : new Chart(
                        Chart.Kind.valueOf(written.get(0)),
                        written.get(1),
                        written.get(2).equals(NONE) ? null : Figures.Step.valueOf(written.get(2)),
                        written.get(3).equals(NONE) ? null : written.get(3));
    }

    private static List<String> written(@Nullable Chart chart) {
        return chart == null
                ? List.of()
                : List.of(
                        chart.kind().name(),
                        chart.by(),
                        chart.step() == null ? NONE : chart.step().name(),
                        Objects.requireNonNullElse(chart.sum(), NONE));
    }

    @Override
    public void put(Transaction transaction, NamedView view) {
        SqlSession.of(transaction)
                .run(
                        PUT,
                        view.object(),
                        Objects.requireNonNullElse(view.owner(), SHARED),
                        view.name(),
                        view.filter(),
                        view.search(),
                        view.sort(),
                        view.retired(),
                        TextList.write(view.columns()),
                        TextList.write(written(view.chart())));
    }

    @Override
    public boolean remove(
            Transaction transaction, String object, @Nullable String owner, String name) {
        return SqlSession.of(transaction)
                        .run(REMOVE, object, Objects.requireNonNullElse(owner, SHARED), name)
                > 0;
    }
}
