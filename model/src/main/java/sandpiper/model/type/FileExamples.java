package sandpiper.model.type;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;

/** Small files that could be given, for contracts and trials. */
final class FileExamples {
    private static final List<Example> ALL =
            List.of(
                    new Example("lease.pdf", "application/pdf", "JVBERi0xLjcK"),
                    new Example("boat.png", "image/png", "iVBORw0KGgoAAAANSUhEUg=="),
                    new Example("boat.jpg", "image/jpeg", "/9j/4AAQSkZJRgABAQ=="),
                    new Example("note.txt", "text/plain", "QWhveSE="),
                    new Example("berths.csv", "text/csv", "YmVydGgKQTEyCg=="));

    /**
     * A file.
     *
     * @param content in base64
     */
    record Example(String name, String type, String content) {}

    private FileExamples() {}

    /**
     * One that is among the accepted types; where none is at hand, one of the first by its name.
     */
    static Example of(List<String> accepts) {
        if (accepts.isEmpty()) {
            return ALL.getFirst();
        }
        return ALL.stream()
                .filter(one ->
                        accepts.stream().anyMatch(range -> MediaTypes.includes(range, one.type())))
                .findFirst()
                .orElseGet(() -> made(accepts.getFirst()));
    }

    private static Example made(String range) {
        return new Example(
                "file",
                range.endsWith("/*") ? range.replace("*", "x-any") : range,
                Base64.getEncoder().encodeToString("Ahoy!".getBytes(StandardCharsets.UTF_8)));
    }
}
