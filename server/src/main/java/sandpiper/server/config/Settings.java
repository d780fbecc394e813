package sandpiper.server.config;

import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * How an instance is started.
 *
 * @param data the file that holds everything; made when it is not there
 * @param port on which it answers; 0 for any that is free
 * @param firstPassword the password of the first user of a new instance, or {@code null} to have
 *     one made up
 */
public record Settings(Path data, int port, @Nullable String firstPassword) {}
