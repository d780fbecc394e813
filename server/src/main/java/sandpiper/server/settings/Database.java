package sandpiper.server.settings;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.util.unit.DataSize;

/**
 * How a database is reached, where {@code sandpiper.data} names one.
 *
 * @param user {@code null} for the one the address names
 * @param password {@code null} for none, or for that in {@code passwordFile}
 * @param passwordFile a file with nothing but the password; {@code null} for none
 * @param readers connections that read, at most
 * @param writers connections that write, at most
 * @param patience how long to wait for a connection
 * @param largestCopy data that may be copied to rehearse on
 */
public record Database(
        @Nullable String user,
        @Nullable String password,
        @Nullable Path passwordFile,
        @DefaultValue("16") int readers,
        @DefaultValue("8") int writers,
        @DefaultValue("5s") Duration patience,
        @DefaultValue("2GB") DataSize largestCopy) {
    public Database {
        Settings.within("database.readers", readers, 1, 1_000);
        Settings.within("database.writers", writers, 2, 1_000);
        Settings.within("database.patience", patience.toMillis(), 250, 60_000);
        if (password != null && passwordFile != null) {
            throw new IllegalArgumentException(
                    "sandpiper.database.password and sandpiper.database.password-file are both set;"
                            + " set one of them.");
        }
    }

    /**
     * The password, wherever it stands; {@code null} when there is none.
     *
     * @throws IllegalArgumentException when its file cannot be read
     */
    public @Nullable String secret() {
        if (passwordFile == null) {
            return password;
        }
        try {
            return Files.readString(passwordFile).strip();
        } catch (IOException e) {
            throw new IllegalArgumentException(
                    "The file of sandpiper.database.password-file, %s, cannot be read."
                            .formatted(passwordFile),
                    e);
        }
    }

    @Override
    public String toString() {
        return "Database[user=%s]".formatted(user);
    }
}
