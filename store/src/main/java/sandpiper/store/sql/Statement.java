package sandpiper.store.sql;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jooq.Query;
import org.jooq.SQLDialect;
import org.jooq.impl.DSL;

/**
 * A statement that is rendered once for each dialect it is run in. Its values are bound in the
 * order in which places for them stand in it. Safe to share.
 */
public final class Statement {
    private final Function<Dialect, String> text;
    private final Map<Dialect, String> texts = new ConcurrentHashMap<>(2);

    private Statement(Function<Dialect, String> text) {
        this.text = text;
    }

    /** Renders nothing yet. */
    public Statement(Query query) {
        this(dialect -> dialect.render(query));
    }

    /** One that is written by hand, with a question mark for each value. */
    public static Statement written(String sql) {
        return new Statement(_ -> sql);
    }

    /** Several as one, for a database that answers them in turn. */
    public static Statement together(List<Statement> all) {
        return new Statement(dialect ->
                all.stream().map(one -> one.in(dialect)).collect(Collectors.joining("; ")));
    }

    /** The same, giving a column of each row that it adds. */
    public Statement returning(String column) {
        return new Statement(dialect ->
                "%s returning %s".formatted(text.apply(dialect), dialect.render(DSL.name(column))));
    }

    /**
     * The same for so many rows from a place on; both are bound last, in this order, which is not
     * the same in what jOOQ renders for each dialect.
     */
    public Statement inPages() {
        return new Statement(dialect -> text.apply(dialect) + " limit ? offset ?");
    }

    /** The same taking its rows for the transaction alone, but for those that another has. */
    public Statement claiming() {
        return new Statement(dialect ->
                text.apply(dialect)
                        + (dialect.family() == SQLDialect.POSTGRES
                                ? " for update skip locked"
                                : ""));
    }

    /** Its text in a dialect. */
    public String in(Dialect dialect) {
        var there = texts.get(dialect);
        return there != null ? there : texts.computeIfAbsent(dialect, text);
    }
}
