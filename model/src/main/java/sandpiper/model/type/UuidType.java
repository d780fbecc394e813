package sandpiper.model.type;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import sandpiper.logic.type.LogicType;

/** A universally unique identifier (RFC 9562), stored as its text in small letters. */
public record UuidType() implements FieldType {
    private static final Pattern FORM =
            Pattern.compile("[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}");

    @Override
    public TypeKeyword keyword() {
        return TypeKeyword.UUID;
    }

    @Override
    public LogicType logicType() {
        return LogicType.Simple.TEXT;
    }

    @Override
    public ParsedValue read(Object plain) {
        return plain instanceof String text && FORM.matcher(text.toLowerCase(Locale.ROOT)).matches()
                ? ParsedValue.taken(text.toLowerCase(Locale.ROOT))
                : ParsedValue.wrongType(
                        "must be a UUID, as in 0198c0de-7a5e-7000-8000-000000000001, but was "
                                + TextType.shown(plain));
    }

    @Override
    public Object write(Object stored) {
        return stored;
    }

    @Override
    public Storage stores() {
        return Storage.TEXT;
    }

    @Override
    public Map<String, Object> schema() {
        var schema = new LinkedHashMap<String, Object>();
        schema.put("type", "string");
        schema.put("format", "uuid");
        return schema;
    }

    @Override
    public Object example() {
        return "0198c0de-7a5e-7000-8000-000000000001";
    }
}
