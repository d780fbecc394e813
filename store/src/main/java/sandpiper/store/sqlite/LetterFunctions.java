package sandpiper.store.sqlite;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.Locale;
import java.util.function.UnaryOperator;
import org.sqlite.Function;
import sandpiper.store.table.Letters;

/**
 * Small and capital letters of every script, as logic has them; the database's own functions know
 * ASCII only.
 */
final class LetterFunctions {
    private LetterFunctions() {}

    static void addTo(Connection connection) throws SQLException {
        Function.create(
                connection, Letters.SMALL, of(text -> text.toLowerCase(Locale.ROOT)), 1, FLAGS);
        Function.create(
                connection, Letters.CAPITAL, of(text -> text.toUpperCase(Locale.ROOT)), 1, FLAGS);
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
