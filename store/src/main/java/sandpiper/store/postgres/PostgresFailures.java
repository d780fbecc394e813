package sandpiper.store.postgres;

import java.sql.SQLException;
import sandpiper.engine.port.ConflictException;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.TooLongException;

/** Says in words what PostgreSQL says in codes (SQLSTATE, its appendix A). */
final class PostgresFailures {
    private PostgresFailures() {}

    static StorageException inWords(SQLException e) {
        var state = String.valueOf(e.getSQLState());
        var details =
                "%s: %s"
                        .formatted(
                                state,
                                String.valueOf(e.getMessage()).replaceAll("\\s*\\n\\s*", " "));
        return switch (state) {
            // Another transaction was first: of two that cannot both be, of two that wait for each
            // other, of two that add one key or a link to what goes.
            case "40001", "40P01", "40003", "23505", "23503" ->
                    ConflictException.conflicting(details, e);
            // A release changed what a statement that was prepared gives, or two processes that
            // begin at one moment make the same table.
            case "0A000", "26000", "42P07" -> ConflictException.conflicting(details, e);
            case "57014" -> new TooLongException(e);
            case "53100" ->
                    new StorageException(
                            "The disk of the database is full: nothing can be stored until there is"
                                    + " room.",
                            details,
                            e);
            case "53300" ->
                    new StorageException(
                            "The database takes no more connections: lower the pool sizes of the"
                                    + " services, or raise its limit.",
                            details,
                            e);
            case "25006" ->
                    new StorageException(
                            "The database can only be read: it is a replica, or set to be read"
                                    + " only. Name the primary.",
                            details,
                            e);
            case "42501" ->
                    new StorageException(
                            "The user of the database may not do that; it must own the schema it"
                                    + " works in.",
                            details,
                            e);
            case "28P01", "28000" ->
                    new StorageException(
                            "The database refuses the user or the password.", details, e);
            case "3D000" -> new StorageException("There is no such database.", details, e);
            default ->
                    isLost(state)
                            ? ConflictException.lost(details, e)
                            : new StorageException("The storage refuses a statement.", details, e);
        };
    }

    /** Whether there is no connection any more. */
    static boolean isLost(String state) {
        return state.startsWith("08") || state.startsWith("57P") || state.equals("null");
    }
}
