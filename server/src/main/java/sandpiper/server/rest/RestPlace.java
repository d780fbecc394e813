package sandpiper.server.rest;

import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import org.springframework.web.util.UriUtils;
import sandpiper.server.protocol.Protocol;

/**
 * What the address of a call names: {@code /api/berth-desk/v1/stays/ST-2026-000042/check-in}.
 *
 * @param batch whether {@code :batch} stands behind the resource
 * @param key of a record, or {@code null}
 * @param call what is called on it, or {@code null}
 */
record RestPlace(
        String service,
        int version,
        String resource,
        boolean batch,
        @Nullable String key,
        @Nullable String call) {
    private static final String BATCH = ":batch";
    private static final int LONGEST_VERSION = 3;

    /** Reads a path as it came; {@code null} when it is none of a resource. */
    static @Nullable RestPlace read(String path) {
        if (!path.startsWith(Protocol.REST_AT)) {
            return null;
        }
        var parts = path.substring(Protocol.REST_AT.length()).split("/", -1);
        if (parts.length < 3 || parts.length > 5 || !isName(parts[0]) || !isVersion(parts[1])) {
            return null;
        }
        boolean batch = parts.length == 3 && parts[2].endsWith(BATCH);
        var resource = batch ? parts[2].substring(0, parts[2].length() - BATCH.length()) : parts[2];
        if (!isName(resource) || hasEmpty(parts)) {
            return null;
        }
        return new RestPlace(
                parts[0],
                Integer.parseInt(parts[1].substring(1)),
                resource,
                batch,
                parts.length > 3 ? decoded(parts[3]) : null,
                parts.length > 4 ? decoded(parts[4]) : null);
    }

    private static boolean hasEmpty(String[] parts) {
        for (var part : parts) {
            if (part.isEmpty()) {
                return true;
            }
        }
        return false;
    }

    private static String decoded(String part) {
        return UriUtils.decode(part, StandardCharsets.UTF_8);
    }

    private static boolean isName(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c != '-' && (c < 'a' || c > 'z') && (c < '0' || c > '9')) {
                return false;
            }
        }
        return !text.isEmpty();
    }

    private static boolean isVersion(String text) {
        if (text.length() < 2 || text.length() > LONGEST_VERSION + 1 || text.charAt(0) != 'v') {
            return false;
        }
        for (int i = 1; i < text.length(); i++) {
            if (text.charAt(i) < '0' || text.charAt(i) > '9') {
                return false;
            }
        }
        return true;
    }

    /** The key of a record, in calls that are about one. */
    String ofRecord() {
        return java.util.Objects.requireNonNull(key);
    }
}
