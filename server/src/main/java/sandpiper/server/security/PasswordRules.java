package sandpiper.server.security;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;

/**
 * What a password must not be: one that everybody tries first, or the name it is for (NIST SP
 * 800-63B §3.1.1.2). Which letters it is made of is nobody else's business.
 */
public final class PasswordRules {
    private static final Set<String> COMMON = read();

    private PasswordRules() {}

    /**
     * Lets a password be set.
     *
     * @throws ProblemException when it is too easy to guess
     */
    public static void require(String name, String password) {
        var small = password.toLowerCase(Locale.ROOT);
        var bare = small.replaceAll("[^a-z]+$", "");
        if (COMMON.contains(small) || COMMON.contains(bare)) {
            throw refused("The password is one that many people have; choose another.");
        }
        if (small.contains(name.toLowerCase(Locale.ROOT))) {
            throw refused("The password must not hold the name it is for.");
        }
        if (small.chars().distinct().count() < 3) {
            throw refused("The password repeats one or two letters only; choose another.");
        }
    }

    private static ProblemException refused(String why) {
        return new ProblemException(HttpStatus.UNPROCESSABLE_CONTENT, why);
    }

    private static Set<String> read() {
        var file =
                Objects.requireNonNull(
                        PasswordRules.class.getResourceAsStream("common-passwords.txt"));
        try (var reader = new BufferedReader(new InputStreamReader(file, StandardCharsets.UTF_8))) {
            return reader.lines()
                    .map(String::strip)
                    .filter(line -> !line.isEmpty())
                    .collect(Collectors.toUnmodifiableSet());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
