package sandpiper.server.manage.record;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;

/** Values as a body was read, in the form in which the engine takes numbers. */
public final class PlainJson {
    private PlainJson() {}

    static Map<String, @Nullable Object> of(Map<String, @Nullable Object> values) {
        var plain = new LinkedHashMap<String, @Nullable Object>();
        values.forEach((name, value) -> plain.put(name, of(value)));
        return plain;
    }

    private static BigDecimal number(Double number) {
        if (!Double.isFinite(number)) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, "A number in the body is too large or too small.");
        }
        return new BigDecimal(number.toString());
    }

    private static @Nullable Object of(@Nullable Object value) {
        return switch (value) {
            case Integer number -> number.longValue();
            case Double number -> number(number);
            case List<?> list -> list.stream().map(PlainJson::of).toList();
            case Map<?, ?> map -> {
                var plain = new LinkedHashMap<String, @Nullable Object>();
                map.forEach((name, one) -> plain.put(String.valueOf(name), of(one)));
                yield plain;
            }
            case null -> null;
            default -> value;
        };
    }
}
