package sandpiper.store.table;

import java.util.ArrayList;
import java.util.List;
import org.jooq.DSLContext;
import org.jooq.SQLDialect;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.store.sql.Rendering;

/**
 * How objects, parts and fields are called in the database: by their own names, always quoted.
 * Names the consultant chooses have no underscore, so those that have one are ours.
 */
public final class Tables {
    public static final String NUMBER = "_number";
    public static final String ID = "_id";
    public static final String VERSION = "_version";
    public static final String RETIRED = "_retired";
    public static final String CREATED_AT = "_created_at";
    public static final String CREATED_BY = "_created_by";
    public static final String CHANGED_AT = "_changed_at";
    public static final String CHANGED_BY = "_changed_by";
    public static final String OWNER = "_owner";
    public static final String LINE = "_line";
    public static final String POSITION = "_position";

    /** What every record has before its fields, in the order of its columns. */
    public static final List<String> RECORD_COLUMNS =
            List.of(NUMBER, ID, VERSION, RETIRED, CREATED_AT, CREATED_BY, CHANGED_AT, CHANGED_BY);

    /** What every line item has before its fields. */
    public static final List<String> ITEM_COLUMNS = List.of(OWNER, LINE, POSITION);

    private static final DSLContext CONTEXT = Rendering.in(SQLDialect.DEFAULT);

    private Tables() {}

    /** Begins statements, for whatever dialect; runs nothing. */
    public static DSLContext sql() {
        return CONTEXT;
    }

    public static String of(ObjectType object) {
        return object.name();
    }

    public static String of(ObjectType object, Part part) {
        return object.name() + "_" + part.name();
    }

    /** The columns of a field: its name, with a suffix for all but the first. */
    public static List<String> columns(Field field) {
        return field.type().columns().stream()
                .map(column -> field.name() + column.suffix())
                .toList();
    }

    /** The columns of fields, in their order. */
    public static List<String> columns(Iterable<Field> fields) {
        var columns = new ArrayList<String>();
        fields.forEach(field -> columns.addAll(columns(field)));
        return columns;
    }

    /** All columns of a record's table. */
    public static List<String> recordColumns(Fields fields) {
        var columns = new ArrayList<>(RECORD_COLUMNS);
        columns.addAll(columns(fields));
        return columns;
    }
}
