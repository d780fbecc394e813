package sandpiper.engine.access;

import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * An operation of a service, as it is written: {@code berth-desk/stays/read}, with {@code *} for
 * all, and behind {@code where} a condition on the records it reaches.
 *
 * @param operation {@code create}, {@code read}, {@code update}, {@code query}, {@code remove}, or
 *     the name of a call
 * @param where in FEEL, or {@code null} for every record the resource shows
 */
public record ServiceGrant(
        String service, String resource, String operation, @Nullable String where) {
    /** What stands for all. */
    public static final String EVERY = "*";

    private static final Pattern FORM =
            Pattern.compile(
                    "(\\*|[a-z0-9-]+)/(\\*|[a-z0-9-]+)/(\\*|[a-z][A-Za-z0-9]*)(?:\\s+where\\s+(\\S.*))?",
                    Pattern.DOTALL);

    /** Reads a grant, or nothing when it has another form. */
    public static Optional<ServiceGrant> read(String text) {
        var parts = FORM.matcher(text.strip());
        return parts.matches()
                ? Optional.of(
                        new ServiceGrant(
                                parts.group(1), parts.group(2), parts.group(3), parts.group(4)))
                : Optional.empty();
    }

    /** Reads grants; those that have another form grant nothing. */
    public static List<ServiceGrant> readAll(List<String> texts) {
        return texts.stream().map(ServiceGrant::read).flatMap(Optional::stream).toList();
    }

    boolean covers(String wantedService, String wantedResource, String wantedOperation) {
        return matches(service, wantedService)
                && matches(resource, wantedResource)
                && matches(operation, wantedOperation);
    }

    boolean isOf(String wantedService) {
        return matches(service, wantedService);
    }

    private static boolean matches(String granted, String wanted) {
        return granted.equals(EVERY) || granted.equals(wanted);
    }
}
