package sandpiper.server.service;

import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;

/** Versions as entity tags, RFC 9110 §8.8.3 and §13.1. */
public final class Preconditions {
    private Preconditions() {}

    /** The tag of a version. */
    public static String tag(long version) {
        return "\"" + version + "\"";
    }

    /** The version a change is meant for, or {@code null} when any will do. */
    public static @Nullable Long expectedVersion(@Nullable String ifMatch) {
        if (ifMatch == null || ifMatch.strip().equals("*")) {
            return null;
        }
        var tag = ifMatch.strip();
        if (tag.matches("\"\\d{1,18}\"")) {
            return Long.valueOf(tag.substring(1, tag.length() - 1));
        }
        throw new ProblemException(
                HttpStatus.BAD_REQUEST,
                "If-Match must be the ETag of the record as you read it, such as \"3\".");
    }

    /** Whether what the caller has is still right. */
    public static boolean isFresh(@Nullable String ifNoneMatch, long version) {
        return ifNoneMatch != null
                && java.util.Arrays.stream(ifNoneMatch.split(",", -1))
                        .map(tag -> tag.strip().replaceFirst("^W/", ""))
                        .anyMatch(tag -> tag.equals(tag(version)) || tag.equals("*"));
    }
}
