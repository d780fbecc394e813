package sandpiper.store.sql;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.Locale;
import java.util.function.UnaryOperator;
import org.sqlite.Function;

/**
 * Small and capital letters of every script, as logic has them; the database's own functions know
 * ASCII only.
 */
public final class LetterFunctions {
    /** The name of the function for small letters. */
    public static final String SMALL = "small_letters";

    /** The name of the function for capital letters. */
    public static final String CAPITAL = "capital_letters";

    private LetterFunctions() {}

    static void addTo(Connection connection) throws SQLException {
        Function.create(connection, SMALL, of(text -> text.toLowerCase(Locale.ROOT)), 1, FLAGS);
        Function.create(connection, CAPITAL, of(text -> text.toUpperCase(Locale.ROOT)), 1, FLAGS);
    }

    private static final int FLAGS = Function.FLAG_DETERMINISTIC;

    private static Function of(UnaryOperator<String> change) {
        return new Function() {
            @Override
            protected void xFunc() throws SQLException {
                var text = value_text(0);
                if (text == null) {
                    result();
                } else {
                    result(change.apply(text));
                }
            }
        };
    }
}
