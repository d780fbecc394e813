package sandpiper.server.pack;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonPropertyOrder;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Collections;
import java.util.HexFormat;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * What a packed package says of itself. Its text is the same for the same content.
 *
 * @param format of the archive; {@link #FORMAT} here
 * @param name of the package
 * @param version as it stands in {@code package.yaml}
 * @param depends the packages it needs by name, each with the version it was packed beside; an
 *     empty text where that is not known
 * @param origin where it was packed, or {@code null} when it was out of a folder
 * @param files SHA-256 of each file in hexadecimal digits, by path
 */
@JsonPropertyOrder({"format", "name", "version", "depends", "origin", "files"})
@JsonInclude(JsonInclude.Include.NON_NULL)
public record Manifest(
        int format,
        String name,
        String version,
        SortedMap<String, String> depends,
        @Nullable Origin origin,
        SortedMap<String, String> files) {
    /** The format that is written, and the newest that is read. */
    public static final int FORMAT = 1;

    public Manifest {
        depends = Collections.unmodifiableSortedMap(new TreeMap<>(depends));
        files = Collections.unmodifiableSortedMap(new TreeMap<>(files));
    }

    /**
     * Where a package was packed.
     *
     * @param instance the name of the instance; empty when it has none
     * @param release the one it was in
     */
    public record Origin(String instance, int release) {}

    /** As it is written. */
    public String text() {
        return new String(ArchiveWriter.text(this), StandardCharsets.UTF_8);
    }

    /** What {@link #text} gave. */
    public static Manifest parse(String text) {
        return ArchiveWriter.JSON.readValue(text, Manifest.class);
    }

    /** Checksums of files by path. */
    public static SortedMap<String, String> checksums(Map<String, String> files) {
        var sums = new TreeMap<String, String>();
        files.forEach((path, text) -> sums.put(path, sha256(text)));
        return sums;
    }

    /**
     * A short text that tells this content from any other: the beginning of the SHA-256 of paths
     * and checksums.
     */
    public String content() {
        return content(files);
    }

    /** The same of checksums by path. */
    public static String content(SortedMap<String, String> files) {
        var all = new StringBuilder();
        files.forEach((path, sum) -> all.append(path).append('\n').append(sum).append('\n'));
        return sha256(all.toString()).substring(0, 16);
    }

    private static String sha256(String text) {
        return sha256(text.getBytes(StandardCharsets.UTF_8));
    }

    static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("Every Java has SHA-256.", e);
        }
    }
}
