package sandpiper.store.table;

import org.jooq.Field;
import sandpiper.store.sql.Either;

/**
 * Small and capital letters of every script, as logic has them. SQLite's own functions know ASCII
 * only, so that each connection is given these; PostgreSQL has them by the rules of Unicode.
 */
public final class Letters {
    /** The name of the function SQLite is given for small letters. */
    public static final String SMALL = "small_letters";

    /** The name of the function SQLite is given for capital letters. */
    public static final String CAPITAL = "capital_letters";

    private Letters() {}

    /** A text in small or in capital letters. */
    public static Field<Object> of(Field<Object> text, boolean capital) {
        return Either.field(
                (capital ? CAPITAL : SMALL) + "({0})",
                "(%s({0} collate \"und-x-icu\") collate \"C\")"
                        .formatted(capital ? "upper" : "lower"),
                text);
    }
}
