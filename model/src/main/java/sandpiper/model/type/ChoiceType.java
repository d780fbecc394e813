package sandpiper.model.type;

import java.util.LinkedHashMap;
import java.util.Map;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.type.LogicType;

/** One code of a choice list. */
public record ChoiceType(ChoiceList choices) implements FieldType {
    @Override
    public TypeKeyword keyword() {
        return TypeKeyword.CHOICE;
    }

    @Override
    public LogicType logicType() {
        return new LogicType.ChoiceOf(choices.codes());
    }

    @Override
    public ParsedValue read(Object plain) {
        if (!(plain instanceof String code)) {
            return ParsedValue.wrongType(
                    "must be one of %s, but was %s"
                            .formatted(String.join(", ", choices.codes()), TextType.shown(plain)));
        }
        if (choices.labels().containsKey(code)) {
            return ParsedValue.taken(code);
        }
        var nearest =
                Nearest.to(code, choices.codes())
                        .map(near -> "; did you mean \"" + near + "\"?")
                        .orElse("");
        return new ParsedValue.Refused(
                ValueCode.UNKNOWN_CHOICE,
                "must be one of %s, but was %s%s"
                        .formatted(String.join(", ", choices.codes()), Quoted.of(code), nearest));
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
        schema.put("enum", choices.codes());
        return schema;
    }

    @Override
    public Object example() {
        return choices.codes().getFirst();
    }
}
