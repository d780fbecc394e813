package sandpiper.model.yaml;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What stands in a file as JSON would have it: texts, numbers, booleans, maps and lists. */
public final class PlainYaml {
    private PlainYaml() {}

    /** Values under names. */
    public static Map<String, @Nullable Object> of(YamlNode.Mapping mapping) {
        var values = new LinkedHashMap<String, @Nullable Object>();
        mapping.entries().forEach(entry -> values.put(entry.key().text(), of(entry.value())));
        return values;
    }

    /** Any value. */
    public static @Nullable Object of(YamlNode node) {
        return switch (node) {
            case YamlNode.Mapping mapping -> of(mapping);
            case YamlNode.Sequence(var items, _) -> {
                var list = new ArrayList<@Nullable Object>();
                items.forEach(item -> list.add(of(item)));
                yield list;
            }
            case YamlNode.Scalar scalar ->
                    switch (scalar.kind()) {
                        case TEXT -> scalar.text();
                        case BOOLEAN -> Boolean.valueOf(scalar.text());
                        case NULL -> null;
                        case NUMBER -> number(scalar.text());
                    };
        };
    }

    private static Object number(String text) {
        try {
            var number = new BigDecimal(text);
            return number.scale() <= 0 ? (Object) number.longValueExact() : number;
        } catch (ArithmeticException | NumberFormatException e) {
            return text;
        }
    }
}
