package sandpiper.server.service;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sandpiper.model.release.ValueType;

/** Values in plain form that could be given or gotten, for contracts and trials. */
public final class ValueExamples {
    private ValueExamples() {}

    public static Map<String, Object> of(ValueType.Group group) {
        var values = new LinkedHashMap<String, Object>();
        group.entries().forEach(one -> values.put(one.name(), of(one.type())));
        return values;
    }

    public static Object of(ValueType type) {
        return switch (type) {
            case ValueType.Single(var field) -> field.type().example();
            case ValueType.Many(var item) -> List.of(of(item));
            case ValueType.Group group -> of(group);
        };
    }
}
