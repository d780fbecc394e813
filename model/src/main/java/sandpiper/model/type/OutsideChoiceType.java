package sandpiper.model.type;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sandpiper.logic.type.LogicType;

/**
 * A code that an outside service knows. It is stored with the label it had when it was chosen;
 * whether the service knows it is found out by whoever can ask.
 *
 * @param lookup as it is written in the definition: {@code tide-table.currencies}
 */
public record OutsideChoiceType(String lookup) implements FieldType {
    /** Most characters of a code. */
    public static final int LONGEST = 200;

    /** The name of the connection. */
    public String connection() {
        return lookup.substring(0, Math.max(0, lookup.indexOf('.')));
    }

    /** The name of the lookup within its connection. */
    public String lookupName() {
        return lookup.substring(lookup.indexOf('.') + 1);
    }

    @Override
    public TypeKeyword keyword() {
        return TypeKeyword.CHOICE;
    }

    @Override
    public LogicType logicType() {
        return LogicType.Simple.TEXT;
    }

    @Override
    public ParsedValue read(Object plain) {
        return switch (TextType.plain().read(plain)) {
            case ParsedValue.Taken(var code) when ((String) code).isBlank() ->
                    ParsedValue.wrongType("must be a code, but was empty");
            case ParsedValue.Taken(var code) ->
                    ParsedValue.taken(OutsideCode.unseen((String) code));
            case ParsedValue.Refused refused -> refused;
        };
    }

    @Override
    public Object write(Object stored) {
        return ((OutsideCode) stored).code();
    }

    @Override
    public List<Column> columns() {
        return List.of(new Column("", Storage.TEXT), new Column("_label", Storage.TEXT));
    }

    @Override
    public Storage stores() {
        return Storage.TEXT;
    }

    @Override
    public Map<String, Object> schema() {
        var schema = new LinkedHashMap<String, Object>();
        schema.put("type", "string");
        schema.put("maxLength", LONGEST);
        return schema;
    }

    @Override
    public Object example() {
        return "CODE";
    }
}
