package sandpiper.model.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** Whatever stands in a definition file, what is wrong is said with its place. */
class DefinitionsFuzzTest {
    private static final int TRIES = 200;
    private static final Path PACKAGES = Path.of("../demo/packages");
    private static final String MARKS = "{}[]\"'`,:;=-|&%#@!?>* \t\n\u0000\u2028\ud83d\udea4";
    private static final Map<String, String> FILES = new TreeMap<>();

    @BeforeAll
    static void read() throws IOException {
        try (var files = Files.walk(PACKAGES)) {
            for (var file : files.filter(Files::isRegularFile).toList()) {
                FILES.put(
                        PACKAGES.relativize(file).toString().replace('\\', '/'),
                        Files.readString(file, StandardCharsets.UTF_8));
            }
        }
    }

    private static String broken(String text, Random random) {
        var broken = new StringBuilder(text);
        for (int times = 1 + random.nextInt(3); times > 0; times--) {
            int at = random.nextInt(broken.length());
            int end = Math.min(broken.length(), at + 1 + random.nextInt(30));
            switch (random.nextInt(6)) {
                case 0 -> broken.setLength(at + 1);
                case 1 -> broken.insert(at, MARKS.charAt(random.nextInt(MARKS.length())));
                case 2 -> broken.delete(at, Math.min(end, broken.length() - 1));
                case 3 ->
                        broken.insert(at, broken.substring(at, end).repeat(1 + random.nextInt(3)));
                case 4 -> broken.insert(at, "[".repeat(1 + random.nextInt(500)));
                default ->
                        broken.insert(
                                at,
                                List.of(
                                                "&a ",
                                                "*a ",
                                                "!!java/object ",
                                                "<<: ",
                                                "? ",
                                                "--- ",
                                                "9".repeat(90))
                                        .get(random.nextInt(7)));
            }
        }
        return broken.toString();
    }

    @Test
    @Timeout(90)
    void anythingMayStandInAFile() {
        var random = new Random(27);
        var paths = List.copyOf(FILES.keySet());
        for (int i = 0; i < TRIES; i++) {
            var path = paths.get(i % paths.size());
            var files = new HashMap<>(FILES);
            files.put(path, broken(String.valueOf(FILES.get(path)), random));
            var checked = Definitions.check(files);
            if (checked.release().isEmpty()) {
                assertThat(checked.errors())
                        .isNotEmpty()
                        .allMatch(error -> error.line() >= 1 && !error.message().isBlank());
            }
        }
    }
}
