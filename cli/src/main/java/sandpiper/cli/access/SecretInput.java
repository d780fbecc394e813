package sandpiper.cli.access;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.client.RefusedException;

/** Asks for a password without showing it, or reads it from a file; never from the command line. */
public final class SecretInput {
    private SecretInput() {}

    /** What stands in a file, or what somebody types; the prompt says what is wanted. */
    public static String read(@Nullable Path file, String prompt) throws IOException {
        if (file != null) {
            return Files.readString(file).strip();
        }
        var console = System.console();
        if (console == null) {
            throw new RefusedException(
                    0, "There is no terminal to ask for it; give a file.", List.of());
        }
        return String.valueOf(console.readPassword("%s: ", prompt));
    }
}
