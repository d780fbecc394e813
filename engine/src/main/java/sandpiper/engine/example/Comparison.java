package sandpiper.engine.example;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.read.PlainRecords;

/**
 * Compares what an example expects with what there is. Of maps only what is expected is looked at.
 */
final class Comparison {
    private Comparison() {}

    /** What differs, in a sentence; nothing when it is as expected. */
    static Optional<String> of(String what, @Nullable Object wanted, @Nullable Object actual) {
        if (wanted instanceof Map<?, ?> members && actual instanceof Map<?, ?> there) {
            return members.entrySet().stream()
                    .map(one ->
                            of(what + "." + one.getKey(), one.getValue(), there.get(one.getKey())))
                    .flatMap(Optional::stream)
                    .findFirst();
        }
        if (wanted instanceof List<?> list && actual instanceof List<?> there) {
            return list(what, list, there);
        }
        return isSame(wanted, actual)
                ? Optional.empty()
                : Optional.of(
                        "%s should be %s, but is %s."
                                .formatted(what, written(wanted), written(actual)));
    }

    private static Optional<String> list(String what, List<?> wanted, List<?> actual) {
        if (wanted.size() != actual.size()) {
            return Optional.of(
                    "%s should have %d, but has %d.".formatted(what, wanted.size(), actual.size()));
        }
        for (int i = 0; i < wanted.size(); i++) {
            var difference = of("%s %d".formatted(what, i + 1), wanted.get(i), actual.get(i));
            if (difference.isPresent()) {
                return difference;
            }
        }
        return Optional.empty();
    }

    private static boolean isSame(@Nullable Object wanted, @Nullable Object actual) {
        if (wanted == null || actual == null) {
            return Objects.equals(wanted, actual);
        }
        if (actual instanceof Map<?, ?> map && map.containsKey(PlainRecords.KEY)) {
            return Objects.equals(
                    String.valueOf(wanted), String.valueOf(map.get(PlainRecords.KEY)));
        }
        var number = number(wanted);
        var other = number(actual);
        return (number != null && other != null)
                ? number.compareTo(other) == 0
                : wanted.toString().equals(actual.toString());
    }

    private static @Nullable BigDecimal number(Object value) {
        try {
            return (value instanceof Number || value instanceof String)
                    ? new BigDecimal(value.toString())
                    : null;
        } catch (NumberFormatException _) {
            return null;
        }
    }

    private static String written(@Nullable Object value) {
        return value == null ? "empty" : String.valueOf(value);
    }
}
