package sandpiper.server.rest;

import java.nio.charset.StandardCharsets;
import java.util.Objects;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.web.util.UriUtils;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.protocol.ServiceAddress;
import sandpiper.server.service.FilePlace;

/**
 * What the address of a call names: {@code /api/berth-desk/v1/stays/ST-2026-000042/check-in}.
 *
 * @param batch whether {@code :batch} stands behind the resource
 * @param key of a record, or {@code null}
 * @param call what is called on it, or a file of it; {@code null} for the record itself
 * @param item a file of a line item, or {@code null}
 */
record RestPlace(
        String service,
        int version,
        String resource,
        boolean batch,
        @Nullable String key,
        @Nullable String call,
        @Nullable FilePlace item) {
    private static final String BATCH = ":batch";
    private static final Pattern LINE = Pattern.compile("\\d{1,18}");

    /** Reads a path as it came; {@code null} when it is none of a resource. */
    static @Nullable RestPlace read(String path) {
        var address = ServiceAddress.read(Protocol.REST_AT, path);
        if (address == null || address.behind().isEmpty()) {
            return null;
        }
        var parts = address.behind().substring(1).split("/", -1);
        var item = parts.length == 5 ? item(parts) : null;
        if (parts.length > 3 && item == null) {
            return null;
        }
        boolean batch = parts.length == 1 && parts[0].endsWith(BATCH);
        var resource = batch ? parts[0].substring(0, parts[0].length() - BATCH.length()) : parts[0];
        if (!ServiceAddress.isName(resource) || hasEmpty(parts)) {
            return null;
        }
        return new RestPlace(
                address.service(),
                address.version(),
                resource,
                batch,
                parts.length > 1 ? decoded(parts[1]) : null,
                parts.length == 3 ? decoded(parts[2]) : null,
                item);
    }

    /** {@code charges/2/receipt} behind the key of a record. */
    private static @Nullable FilePlace item(String[] parts) {
        return LINE.matcher(parts[3]).matches()
                ? new FilePlace(decoded(parts[2]), Long.parseLong(parts[3]), decoded(parts[4]))
                : null;
    }

    /** The file that may be meant, or {@code null} when it can be none. */
    @Nullable FilePlace file() {
        return item != null || call == null ? item : FilePlace.of(call);
    }

    /** The file, in calls that are about one. */
    FilePlace ofFile() {
        return Objects.requireNonNull(file());
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

    /** The key of a record, in calls that are about one. */
    String ofRecord() {
        return Objects.requireNonNull(key);
    }
}
