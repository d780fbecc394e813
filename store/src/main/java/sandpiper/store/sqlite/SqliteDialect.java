package sandpiper.store.sqlite;

import java.sql.SQLException;
import org.jooq.DSLContext;
import org.jooq.QueryPart;
import org.jooq.SQLDialect;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.StorageException;
import sandpiper.store.sql.Dialect;
import sandpiper.store.sql.Rendering;
import sandpiper.store.sql.Statement;

/** What SQLite says in its own way. */
public final class SqliteDialect implements Dialect {
    /** There is no need for more than one. */
    public static final SqliteDialect INSTANCE = new SqliteDialect();

    private static final DSLContext RENDERER = Rendering.in(SQLDialect.SQLITE);

    private SqliteDialect() {}

    @Override
    public SQLDialect family() {
        return SQLDialect.SQLITE;
    }

    @Override
    public boolean hasOneWriter() {
        return true;
    }

    @Override
    public String render(QueryPart part) {
        return RENDERER.render(part);
    }

    @Override
    public String name(String name) {
        return name;
    }

    @Override
    public StorageException inWords(SQLException failure) {
        return SqliteFailures.inWords(failure);
    }

    @Override
    public boolean isLost(SQLException failure) {
        return false;
    }

    @Override
    public Schema schema() {
        return InFile.SCHEMA;
    }

    /** Tables of a file. */
    private enum InFile implements Schema {
        SCHEMA;

        private static final Statement FORMAT = Statement.written("pragma user_version");
        private static final Statement INDEXES =
                Statement.written(
                        ("select name from sqlite_schema where type = 'index' and sql is not"
                                + " null and tbl_name not like 'sandpiper\\_%' escape"
                                + " '\\'"));
        private static final Statement COLUMNS =
                Statement.written(
                        ("select t.name, c.name, c.type from sqlite_schema t,"
                                + " pragma_table_info(t.name) c where t.type = 'table' and"
                                + " substr(t.name, 1, 7) <> 'sqlite_'"));
        private static final Statement BROKEN_LINKS =
                Statement.written(
                        ("select \"table\" || ' to ' || parent from"
                                + " pragma_foreign_key_check"));

        @Override
        public String folder() {
            return "sqlite";
        }

        @Override
        public int firstFormat() {
            return 1;
        }

        @Override
        public Statement format() {
            return FORMAT;
        }

        @Override
        public String formatted(int format) {
            return "pragma user_version = " + format;
        }

        @Override
        public String numbering() {
            return "integer primary key";
        }

        @Override
        public String integer() {
            return "integer";
        }

        @Override
        public String text() {
            return "text";
        }

        @Override
        public String bytes() {
            return "blob";
        }

        @Override
        public String ending(boolean numbered) {
            return numbered ? "strict" : "strict, without rowid";
        }

        @Override
        public String dropped(String table) {
            return "drop table " + table;
        }

        @Override
        public Statement indexes() {
            return INDEXES;
        }

        @Override
        public Statement columns() {
            return COLUMNS;
        }

        @Override
        public boolean altersColumns() {
            return false;
        }

        @Override
        public @Nullable String numberedFrom(String table, String column, long next) {
            return null;
        }

        @Override
        public boolean tiesLinksLater() {
            return false;
        }

        @Override
        public Statement brokenLinks() {
            return BROKEN_LINKS;
        }
    }
}
