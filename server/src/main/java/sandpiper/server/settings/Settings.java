package sandpiper.server.settings;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.regex.Pattern;
import java.util.zip.CRC32;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.boot.context.properties.bind.Name;
import org.springframework.util.unit.DataSize;

/**
 * Every setting of an instance, as in {@code sandpiper.data}. What is not known or makes no sense
 * keeps the service from starting, with a sentence that names the setting.
 *
 * @param data the file that holds everything, or the address of a database, as in {@code
 *     jdbc:postgresql://db1:5432/marina}
 * @param database how that database is reached
 * @param keyFile the key of sealed secrets; {@code null} beside the data
 * @param address the network interface to listen at
 * @param port to listen at; 0 for any that is free
 * @param fresh whether an empty instance is meant where there was one before
 * @param demo whether the data of a demo is meant
 * @param firstPassword of the first user; empty to have one made up
 * @param publicAddress by which callers know the service; empty to go by the request
 */
@ConfigurationProperties(prefix = "sandpiper", ignoreUnknownFields = false)
public record Settings(
        String data,
        @DefaultValue Database database,
        @Nullable Path keyFile,
        String address,
        int port,
        @Name("new") @DefaultValue("false") boolean fresh,
        @DefaultValue("false") boolean demo,
        @DefaultValue("") String firstPassword,
        @DefaultValue("") String publicAddress,
        @DefaultValue Limits limits,
        @DefaultValue Cors cors,
        @DefaultValue Webhooks webhooks,
        @DefaultValue Connections connections,
        @DefaultValue Tracing tracing,
        @DefaultValue Instance instance,
        @DefaultValue Packages packages,
        @DefaultValue Recording recording) {
    private static final String DATABASE = "jdbc:postgresql:";
    private static final Pattern HOST =
            Pattern.compile("(\\[[0-9a-fA-F:.]+]|[A-Za-z0-9_.-]+)(:\\d{1,5})?");

    /** A scheme and a host, as browsers send it; a part of the name may be any. */
    private static final Pattern ORIGIN = Pattern.compile("https?://[^/\\s]+");

    public Settings {
        if (data.contains("://") && !data.startsWith(DATABASE)) {
            throw new IllegalArgumentException(
                    "sandpiper.data is a file, or the address of a database that begins with %s//, but is %s."
                            .formatted(DATABASE, data));
        }
        within("port", port, 0, 65_535);
        publicAddress = publicAddress.strip().replaceFirst("/+$", "");
        if (!publicAddress.isEmpty()) {
            var uri = URI.create(publicAddress);
            if (uri.getHost() == null || !String.valueOf(uri.getScheme()).matches("https?")) {
                throw new IllegalArgumentException(
                        "sandpiper.public-address must begin with https:// and name a host, but is %s."
                                .formatted(publicAddress));
            }
        }
    }

    /** The key of sealed secrets. */
    public Path key() {
        return keyFile == null ? Path.of(beside() + ".key") : keyFile;
    }

    /** Whether the data is in a database. */
    public boolean inDatabase() {
        return data.startsWith(DATABASE);
    }

    /**
     * What the files of this process are called after that belong to the data: the data file, or,
     * where the data is in a database, one that is not there.
     */
    public Path beside() {
        return inDatabase() ? Path.of(".sandpiper", "database") : Path.of(data);
    }

    /**
     * What the files of recorded calls are called after. Where the data is in a database they lie
     * beside the key, and no other process of this machine and no copy has the same.
     */
    public Path calls() {
        if (!inDatabase()) {
            return beside();
        }
        var sum = new CRC32();
        sum.update("%s %d".formatted(data, port).getBytes(StandardCharsets.UTF_8));
        return key().resolveSibling("%s-%08x".formatted(key().getFileName(), sum.getValue()));
    }

    static void within(String setting, long value, long lowest, long highest) {
        if (value < lowest || value > highest) {
            throw new IllegalArgumentException(
                    "sandpiper.%s must be from %,d to %,d, but is %,d."
                            .formatted(setting, lowest, highest, value));
        }
    }

    /** Entries without the space around them, and without empty ones. */
    private static List<String> trimmed(List<String> entries) {
        return entries.stream().map(String::strip).filter(one -> !one.isEmpty()).toList();
    }

    /** Entries of a form; one that is written otherwise would let nothing through. */
    private static List<String> listed(
            String setting, List<String> entries, Pattern form, String expected) {
        var all = trimmed(entries);
        for (var one : all) {
            if (!form.matcher(one).matches()) {
                throw new IllegalArgumentException(
                        "sandpiper.%s lists %s, but has %s.".formatted(setting, expected, one));
            }
        }
        return all;
    }

    private static List<String> hosts(String setting, List<String> entries) {
        return listed(setting, entries, HOST, "host or host:port, as in 127.0.0.1:8090");
    }

    /**
     * How much may be asked of the service.
     *
     * @param body of a request, in bytes
     * @param depth how deep objects and lists of JSON may lie in each other
     * @param page records of a page of a service
     * @param connections that are kept open
     * @param requestsAtOnce that are worked on at the same time
     * @param waitingChanges that wait to be written
     * @param readTime after which a read is stopped
     * @param callsPerMinute of a client without a limit of its own; 0 for any number
     */
    public record Limits(
            DataSize body,
            int depth,
            int page,
            int connections,
            int requestsAtOnce,
            int waitingChanges,
            Duration readTime,
            @DefaultValue("0") int callsPerMinute) {
        /** Less would keep definitions and imports from coming in. */
        private static final int SMALLEST_BODY = 64 << 10;

        public Limits {
            within("limits.body", body.toBytes(), SMALLEST_BODY, Integer.MAX_VALUE / 2);
            within("limits.depth", depth, 5, 500);
            within("limits.page", page, 1, 10_000);
            within("limits.connections", connections, 1, 1_000_000);
            within("limits.requests-at-once", requestsAtOnce, 1, 10_000);
            within("limits.waiting-changes", waitingChanges, 1, 10_000_000);
            within("limits.read-time", readTime.toMillis(), 1, Duration.ofDays(1).toMillis());
            within("limits.calls-per-minute", callsPerMinute, 0, Integer.MAX_VALUE);
        }
    }

    /**
     * Pages of other origins that may call.
     *
     * @param origins such as {@code https://booking.example}; with {@code *} in place of a part of
     *     the name
     */
    public record Cors(@DefaultValue List<String> origins) {
        public Cors {
            origins =
                    listed(
                            "cors.origins",
                            origins,
                            ORIGIN,
                            "origins, as in https://booking.example");
        }
    }

    /**
     * Sending of events.
     *
     * @param allow {@code host} or {@code host:port} that may be called within the own network
     * @param retries the times between tries; empty for the usual ones
     * @param timeout after which a call is given up
     */
    public record Webhooks(
            @DefaultValue List<String> allow,
            @DefaultValue List<Duration> retries,
            @DefaultValue("10s") Duration timeout) {
        public Webhooks {
            allow = hosts("webhooks.allow", allow);
            within("webhooks.timeout", timeout.toMillis(), 1, Duration.ofHours(1).toMillis());
        }
    }

    /**
     * Calls of services outside.
     *
     * @param allow {@code host} or {@code host:port} that may be called within the own network
     * @param timeout after which a call is given up
     * @param answer most bytes of an answer
     */
    public record Connections(
            @DefaultValue List<String> allow,
            @DefaultValue("10s") Duration timeout,
            @DefaultValue("2MB") DataSize answer) {
        public Connections {
            allow = hosts("connections.allow", allow);
            within("connections.timeout", timeout.toMillis(), 1, Duration.ofSeconds(25).toMillis());
            within("connections.answer", answer.toBytes(), 1_000, 64 << 20);
        }
    }

    /**
     * Spans of OpenTelemetry.
     *
     * @param endpoint where they are sent, as in {@code http://127.0.0.1:4318/v1/traces}; {@code
     *     null} for nowhere
     */
    public record Tracing(@Nullable String endpoint) {}

    /**
     * What tells an instance from others of the same packages.
     *
     * @param name such as {@code production}; empty for none
     * @param colour by which the console is told apart, as in {@code #b3261e}; empty for none
     * @param accepts whether definitions may be changed in place
     */
    public record Instance(
            @DefaultValue("") String name,
            @DefaultValue("") String colour,
            @DefaultValue("all") Accepts accepts) {
        private static final int LONGEST_NAME = 40;

        public Instance {
            name = name.strip();
            within("instance.name (its length)", name.length(), 0, LONGEST_NAME);
            if (!colour.isEmpty() && !colour.matches("#[0-9a-fA-F]{6}")) {
                throw new IllegalArgumentException(
                        "sandpiper.instance.colour must have the form #b3261e, but is %s."
                                .formatted(colour));
            }
        }
    }

    /** From where definitions may come. */
    public enum Accepts {
        ALL,
        PACKAGES
    }

    /**
     * Packages that come and go as files.
     *
     * @param signingKey the file with the key they are signed with, or {@code null} to leave them
     *     unsigned
     * @param trusted fingerprints of the keys whose packages are taken; empty to take every one
     */
    public record Packages(@Nullable Path signingKey, @DefaultValue List<String> trusted) {
        public Packages {
            trusted = trimmed(trusted);
        }
    }

    /**
     * Calls of services that are kept to be replayed in a rehearsal. They hold what records hold.
     *
     * @param bytes that they may take beside the data; 0 to keep none
     * @param kept how long a call is kept
     */
    public record Recording(@DefaultValue("0B") DataSize bytes, @DefaultValue("7d") Duration kept) {
        /** Less would hold hardly a call. */
        private static final long SMALLEST = 64 << 10;

        public Recording {
            if (bytes.toBytes() != 0) {
                within("recording.bytes", bytes.toBytes(), SMALLEST, 100L << 30);
            }
            within("recording.kept", kept.toMillis(), 1, Duration.ofDays(90).toMillis());
        }
    }
}
