package sandpiper.cli.records;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import tools.jackson.core.JacksonException;

/** Values of a record: {@code name=value} on the command line, or JSON from a file. */
public final class ValueArguments {
    private static final Pattern ITEM = Pattern.compile("(\\w+)\\[([1-9]\\d{0,3})]\\.(.+)");

    private ValueArguments() {}

    /**
     * Those of the file, if any, and over them those of the command line; an empty one empties its
     * field.
     */
    public static Map<String, @Nullable Object> read(List<String> given, @Nullable Path file)
            throws IOException {
        var values = new LinkedHashMap<String, @Nullable Object>();
        if (file != null) {
            var text =
                    file.toString().equals("-")
                            ? new String(System.in.readAllBytes(), StandardCharsets.UTF_8)
                            : Files.readString(file);
            try {
                ManageClient.read(text)
                        .properties()
                        .forEach(value -> values.put(value.getKey(), value.getValue()));
            } catch (JacksonException e) {
                throw new RefusedException(
                        0,
                        "%s is not JSON: %s.".formatted(file, e.getOriginalMessage()),
                        List.of());
            }
        }
        for (var one : given) {
            int equals = one.indexOf('=');
            if (equals < 1) {
                throw new RefusedException(
                        0, "Write values as FIELD=VALUE, not %s.".formatted(one), List.of());
            }
            var value = one.substring(equals + 1);
            put(values, one.substring(0, equals), value.isEmpty() ? null : value);
        }
        return values;
    }

    /**
     * Puts a value where its name says: {@code name}, {@code name.de} for one language, {@code
     * charges[1].quantity} for a field of a line item, counted from 1.
     */
    static void put(Map<String, @Nullable Object> values, String name, @Nullable Object value) {
        var item = ITEM.matcher(name);
        if (item.matches()) {
            var items = list(values, item.group(1));
            int place = Integer.parseInt(item.group(2));
            while (items.size() < place) {
                items.add(new LinkedHashMap<String, @Nullable Object>());
            }
            put(map(items.get(place - 1)), item.group(3), value);
            return;
        }
        int dot = name.indexOf('.');
        if (dot > 0) {
            put(
                    map(
                            values.computeIfAbsent(
                                    name.substring(0, dot),
                                    _ -> new LinkedHashMap<String, @Nullable Object>())),
                    name.substring(dot + 1),
                    value);
        } else {
            values.put(name, value);
        }
    }

    @SuppressWarnings("unchecked") // only lists made here stand there
    private static List<@Nullable Object> list(Map<String, @Nullable Object> values, String name) {
        return (List<@Nullable Object>)
                Objects.requireNonNull(
                        values.computeIfAbsent(name, _ -> new ArrayList<@Nullable Object>()));
    }

    @SuppressWarnings("unchecked") // only maps made here stand there
    private static Map<String, @Nullable Object> map(@Nullable Object value) {
        return (Map<String, @Nullable Object>) Objects.requireNonNull(value);
    }
}
