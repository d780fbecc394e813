package sandpiper.store.sql;

import java.sql.SQLException;
import org.jooq.QueryPart;
import org.jooq.SQLDialect;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.StorageException;

/**
 * What one engine says otherwise than another, beyond what jOOQ knows of it. Expressions that read
 * otherwise stand side by side, see {@link Either}. Safe to share.
 */
public interface Dialect {
    /** The name jOOQ has for it. */
    SQLDialect family();

    /** Whether one writes at a time: what it has read stays as it is until it ends. */
    boolean hasOneWriter();

    /** A statement, or a piece of one, as text. */
    String render(QueryPart part);

    /**
     * A name as the engine keeps it: too long a one, or one that it keeps for itself, has another
     * there.
     */
    String name(String name);

    /**
     * A text as the engine takes it. Values of records hold nothing that one of them refuses; what
     * others sent and is only noted, such as an answer from outside, may.
     */
    default String text(String text) {
        return text;
    }

    /** What a failure means, in words. */
    StorageException inWords(SQLException failure);

    /** Whether a failure is that there is no connection any more. */
    boolean isLost(SQLException failure);

    /** The pieces of statements that make and look at tables. */
    Schema schema();

    /** How tables are made, and how they are looked at. */
    interface Schema {
        /** The folder with the statements that make the service's own tables. */
        String folder();

        /** The first format of the service's own tables there has been on this engine. */
        int firstFormat();

        /** The format the tables have; 0 when there are none. */
        Statement format();

        /** Notes that the tables have a format. */
        String formatted(int format);

        /** The column that numbers the rows of a table and is its key, without its name. */
        String numbering();

        /** The type of a column of whole numbers. */
        String integer();

        /** The type of a column of texts, which compare by code point. */
        String text();

        /** The type of a column of bytes. */
        String bytes();

        /**
         * What stands behind the columns of a new table.
         *
         * @param numbered whether its rows have a number of their own
         */
        String ending(boolean numbered);

        /** A table that goes, with what other tables know of it. */
        String dropped(String table);

        /** The names of all indexes that were made for releases. */
        Statement indexes();

        /** All tables and their columns with the types of these, a row for each column. */
        Statement columns();

        /**
         * Whether a column can be taken away, renamed, or get another form where it is; otherwise
         * its table is written anew.
         */
        boolean altersColumns();

        /**
         * What is to be run after rows with given numbers were added to a table, so that the next
         * gets one of its own; {@code null} where that is so by itself.
         *
         * @param next the next number
         */
        @Nullable String numberedFrom(String table, String column, long next);

        /**
         * Whether what a column refers to has to be there already; then links are tied when all
         * tables are.
         */
        boolean tiesLinksLater();

        /** Finds links that lead nowhere; {@code null} where there can be none at any time. */
        @Nullable Statement brokenLinks();
    }
}
