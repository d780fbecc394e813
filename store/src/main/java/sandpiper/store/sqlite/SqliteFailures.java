package sandpiper.store.sqlite;

import java.sql.SQLException;
import org.sqlite.SQLiteErrorCode;
import org.sqlite.SQLiteException;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.TooLongException;

/** Says in words what SQLite says in codes. */
final class SqliteFailures {
    private SqliteFailures() {}

    static StorageException inWords(SQLException e) {
        if (e instanceof SQLiteException sqlite
                && sqlite.getResultCode() == SQLiteErrorCode.SQLITE_INTERRUPT) {
            return new TooLongException(e);
        }
        var words =
                e instanceof SQLiteException sqlite
                        ? switch (sqlite.getResultCode()) {
                            case SQLITE_FULL ->
                                    "The disk is full: nothing can be stored until there is room.";
                            case SQLITE_READONLY, SQLITE_READONLY_DBMOVED, SQLITE_CANTOPEN ->
                                    "The data file cannot be written: check its permissions and its"
                                            + " folder's.";
                            case SQLITE_CORRUPT, SQLITE_NOTADB ->
                                    "The data file is damaged: stop the service and restore a"
                                            + " backup.";
                            case SQLITE_BUSY -> "The data file is in use by another program.";
                            default ->
                                    sqlite.getResultCode().name().startsWith("SQLITE_IOERR")
                                            ? "The disk reports an error."
                                            : "The storage refuses a statement.";
                        }
                        : "The storage does not answer.";
        return new StorageException(words, String.valueOf(e.getMessage()), e);
    }
}
