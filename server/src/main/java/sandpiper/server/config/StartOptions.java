package sandpiper.server.config;

import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * How an instance is started. What is {@code null} is looked for in the file with settings and in
 * the environment, and has a default.
 *
 * @param data the file that holds everything, made when it is not there, or the address of a
 *     database
 * @param port on which it answers; 0 for any that is free
 * @param firstPassword the password of the first user of a new instance, or {@code null} to have
 *     one made up
 * @param config a file with settings, or {@code null} for none
 */
public record StartOptions(
        @Nullable String data,
        @Nullable Integer port,
        @Nullable String firstPassword,
        @Nullable Path config) {
    /** Without a file with settings. */
    public StartOptions(Path data, int port, @Nullable String firstPassword) {
        this(data.toString(), port, firstPassword, null);
    }
}
