package sandpiper.model.type;

import java.util.LinkedHashMap;
import java.util.Map;
import sandpiper.logic.type.LogicType;

/** True or false, stored as 1 or 0. */
public record BooleanType() implements FieldType {
    @Override
    public TypeKeyword keyword() {
        return TypeKeyword.BOOLEAN;
    }

    @Override
    public LogicType logicType() {
        return LogicType.Simple.BOOLEAN;
    }

    @Override
    public ParsedValue read(Object plain) {
        return plain instanceof Boolean flag
                ? ParsedValue.taken(flag ? 1L : 0L)
                : ParsedValue.wrongType("must be true or false, but was " + TextType.shown(plain));
    }

    @Override
    public ParsedValue readText(String text) {
        return switch (text.strip()) {
            case "true" -> ParsedValue.taken(1L);
            case "false" -> ParsedValue.taken(0L);
            default -> read(text);
        };
    }

    @Override
    public Object write(Object stored) {
        return (Long) stored != 0;
    }

    @Override
    public Storage stores() {
        return Storage.INTEGER;
    }

    @Override
    public Map<String, Object> schema() {
        return new LinkedHashMap<>(Map.of("type", "boolean"));
    }

    @Override
    public Object example() {
        return true;
    }
}
