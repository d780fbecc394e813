package sandpiper.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import tools.jackson.core.JacksonException;

/** Values of a record: {@code name=value} on the command line, or JSON from a file. */
final class Values {
    private Values() {}

    /**
     * Those of the file, if any, and over them those of the command line; an empty one empties its
     * field.
     */
    static Map<String, @Nullable Object> read(List<String> given, @Nullable Path file)
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
            values.put(one.substring(0, equals), value.isEmpty() ? null : value);
        }
        return values;
    }
}
