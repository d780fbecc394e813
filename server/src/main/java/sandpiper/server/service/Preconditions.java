package sandpiper.server.service;

import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.command.Expected;
import sandpiper.server.problem.ProblemException;

/** Versions as entity tags, RFC 9110 §8.8.3 and §13.1. */
public final class Preconditions {
    private static final Pattern TAG = Pattern.compile("(W/)?\"([\\x21\\x23-\\x7e\\x80-\\xff]*)\"");
    private static final Pattern VERSION = Pattern.compile("\\d{1,18}");
    private static final String ANY = "*";

    private Preconditions() {}

    /** The tag of a version. */
    public static String tag(long version) {
        return "\"" + version + "\"";
    }

    /**
     * What a change is meant for, or {@code null} when any will do. Weak tags are never the same
     * for a change (§13.1.1), and tags that no record has fit none.
     *
     * @throws ProblemException when a header is neither {@code *} nor a list of tags, or when it
     *     says of a change what only {@code *} can
     */
    public static @Nullable Expected expected(
            @Nullable String ifMatch, @Nullable String ifNoneMatch) {
        if (ifNoneMatch != null) {
            if (!ifNoneMatch.strip().equals(ANY) || ifMatch != null) {
                throw new ProblemException(
                        HttpStatus.BAD_REQUEST,
                        "If-None-Match of a change can only be *, and without If-Match.");
            }
            return new Expected.Absent();
        }
        if (ifMatch == null) {
            return null;
        }
        if (ifMatch.strip().equals(ANY)) {
            return new Expected.There();
        }
        var versions = new HashSet<Long>();
        for (var tag : tags(ifMatch)) {
            var matcher = TAG.matcher(tag);
            if (!matcher.matches()) {
                throw new ProblemException(
                        HttpStatus.BAD_REQUEST,
                        "If-Match must be the ETag of the record as you read it, such as \"3\", or"
                                + " several with commas between them.");
            }
            if (matcher.group(1) == null && VERSION.matcher(matcher.group(2)).matches()) {
                versions.add(Long.valueOf(matcher.group(2)));
            }
        }
        return new Expected.Versions(versions);
    }

    private static List<String> tags(String header) {
        return Arrays.stream(header.split(",", -1)).map(String::strip).toList();
    }

    /** Whether what the caller has is still right; weak tags are as good as strong ones here. */
    public static boolean isFresh(@Nullable String ifNoneMatch, long version) {
        return ifNoneMatch != null
                && tags(ifNoneMatch).stream()
                        .map(tag -> tag.startsWith("W/") ? tag.substring(2) : tag)
                        .anyMatch(tag -> tag.equals(tag(version)) || tag.equals(ANY));
    }
}
