package sandpiper.store.postgres;

import java.time.Duration;
import org.jspecify.annotations.Nullable;

/**
 * How a database is reached.
 *
 * @param url by the rules of the driver, as in {@code jdbc:postgresql://db1:5432/marina}
 * @param user {@code null} for the one the address names, or the system's
 * @param password {@code null} for the one the address names, or none
 * @param readers connections that read, at most
 * @param writers connections that write, at most
 * @param longestRead how long a read may take before it is stopped
 * @param longestWait how long to wait for a connection
 */
public record PostgresSettings(
        String url,
        @Nullable String user,
        @Nullable String password,
        int readers,
        int writers,
        Duration longestRead,
        Duration longestWait) {
    /** The beginning of addresses of such databases. */
    public static final String PREFIX = "jdbc:postgresql:";

    /** Usual numbers of connections for an address that says all else. */
    public static PostgresSettings usual(String url) {
        return new PostgresSettings(
                url, null, null, 16, 8, Duration.ofSeconds(15), Duration.ofSeconds(5));
    }

    @Override
    public String toString() {
        return url;
    }

    /** The same for another address, with few connections. */
    public PostgresSettings at(String other) {
        return new PostgresSettings(other, user, password, 2, 2, longestRead, longestWait);
    }
}
