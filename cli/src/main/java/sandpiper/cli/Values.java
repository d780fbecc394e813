package sandpiper.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import sandpiper.client.ManageClient;
import sandpiper.client.RefusedException;
import tools.jackson.core.JacksonException;

/** Values of a record: {@code name=value} on the command line, or JSON from a file. */
final class Values {
    @Parameters(
            index = "0..*",
            arity = "0..*",
            paramLabel = "FIELD=VALUE",
            description = "Values; an empty one empties the field.")
    List<String> given = List.of();

    @Option(
            names = "--from",
            paramLabel = "FILE",
            description = "A JSON object with values; - for standard input.")
    @Nullable Path file;

    /** What was given behind the first {@code skip} parameters, which are not values. */
    Object read(int skip) throws IOException {
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
        for (var one : given.subList(skip, given.size())) {
            int equals = one.indexOf('=');
            if (equals < 1) {
                throw new RefusedException(
                        0, "Write values as FIELD=VALUE, not %s.".formatted(one), List.of());
            }
            var value = one.substring(equals + 1);
            values.put(one.substring(0, equals), value.isEmpty() ? null : value);
        }
        return (Map<String, @Nullable Object>) values;
    }
}
