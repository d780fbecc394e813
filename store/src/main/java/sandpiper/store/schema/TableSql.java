package sandpiper.store.schema;

import java.util.ArrayList;
import java.util.List;
import org.jooq.impl.DSL;
import sandpiper.model.release.Field;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.store.sql.Dialect;
import sandpiper.store.table.Tables;

/** The statements that make tables and columns, in one dialect. */
final class TableSql {
    private final Dialect dialect;
    private final Release release;

    TableSql(Dialect dialect, Release release) {
        this.dialect = dialect;
        this.release = release;
    }

    private String quoted(String name) {
        return dialect.render(DSL.name(name));
    }

    private String column(String name, String type) {
        return quoted(name) + " " + type;
    }

    /** Makes the table of a shape under a name. */
    String create(TableShape shape, String name) {
        var types = dialect.schema();
        var columns = new ArrayList<String>();
        var owner = shape.owner();
        if (owner == null) {
            columns.add(column(Tables.NUMBER, types.numbering()));
            columns.add(column(Tables.ID, types.bytes() + " not null unique"));
            columns.add(column(Tables.VERSION, types.integer() + " not null"));
            columns.add(column(Tables.RETIRED, types.integer() + " not null"));
            columns.add(column(Tables.CREATED_AT, types.integer() + " not null"));
            columns.add(column(Tables.CREATED_BY, types.text() + " not null"));
            columns.add(column(Tables.CHANGED_AT, types.integer() + " not null"));
            columns.add(column(Tables.CHANGED_BY, types.text() + " not null"));
        } else {
            columns.add(
                    column(
                            Tables.OWNER,
                            "%s not null references %s on delete cascade"
                                    .formatted(types.integer(), quoted(owner))));
            columns.add(column(Tables.LINE, types.integer() + " not null"));
            columns.add(column(Tables.POSITION, types.integer() + " not null"));
        }
        shape.fieldsAfter().forEach(field -> columns.addAll(columns(field)));
        if (owner != null) {
            columns.add(
                    "primary key (%s, %s)".formatted(quoted(Tables.OWNER), quoted(Tables.LINE)));
        }
        return "create table %s (%s) %s"
                .formatted(quoted(name), String.join(", ", columns), types.ending(owner == null))
                .strip();
    }

    /** The columns of one field as they stand in a statement that makes them. */
    private List<String> columns(Field field) {
        var names = Tables.columns(field);
        var definitions = new ArrayList<String>();
        for (int i = 0; i < names.size(); i++) {
            definitions.add(column(names.get(i), type(field, i)));
        }
        return definitions;
    }

    private String type(Field field, int column) {
        var types = dialect.schema();
        var type =
                field.type().columns().get(column).storage() == FieldType.Storage.INTEGER
                        ? types.integer()
                        : types.text();
        return field.type() instanceof FieldType.Reference reference && !types.tiesLinksLater()
                ? type + " references " + quoted(Tables.of(release.target(reference)))
                : type;
    }

    /** Adds the columns of a field to a table, a statement each. */
    List<String> add(String table, Field field) {
        return columns(field).stream()
                .map(column -> "alter table %s add column %s".formatted(quoted(table), column))
                .toList();
    }

    /** Adds one of the columns of a field to a table under another name. */
    String add(String table, Field field, int column, String name) {
        return "alter table %s add column %s"
                .formatted(quoted(table), column(name, type(field, column)));
    }

    /** Ties what new fields of a shape refer to, where that is not done with their columns. */
    List<String> ties(TableShape shape) {
        var after = shape.after();
        if (after == null || !dialect.schema().tiesLinksLater()) {
            return List.of();
        }
        var ties = new ArrayList<String>();
        for (var change : shape.fields()) {
            var field = change.after();
            if (field != null
                    && (shape.isNew() || change.isAdded())
                    && field.type() instanceof FieldType.Reference reference) {
                ties.add(
                        "alter table %s add foreign key (%s) references %s"
                                .formatted(
                                        quoted(after),
                                        quoted(field.name()),
                                        quoted(Tables.of(release.target(reference)))));
            }
        }
        return ties;
    }

    /** Takes a column away. */
    String dropColumn(String table, String column) {
        return "alter table %s drop column %s".formatted(quoted(table), quoted(column));
    }

    /** Gives a column another name. */
    String renameColumn(String table, String from, String to) {
        return "alter table %s rename column %s to %s"
                .formatted(quoted(table), quoted(from), quoted(to));
    }

    /** Takes a table away. */
    String drop(String table) {
        return dialect.schema().dropped(quoted(table));
    }

    /** Gives a table another name. */
    String rename(String from, String to) {
        return "alter table %s rename to %s".formatted(quoted(from), quoted(to));
    }
}
