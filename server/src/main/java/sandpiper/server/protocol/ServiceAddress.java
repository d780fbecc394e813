package sandpiper.server.protocol;

import org.jspecify.annotations.Nullable;

/**
 * The service that an address names, and what stands behind it: {@code /odata/berth-desk/v1/stays}.
 *
 * @param behind everything behind the version as it came, with the slash at its beginning, or empty
 */
public record ServiceAddress(String service, int version, String behind) {
    private static final int LONGEST_VERSION = 3;

    /**
     * Reads a path as it came.
     *
     * @return {@code null} when no service of the protocol is named
     */
    public static @Nullable ServiceAddress read(String prefix, String path) {
        if (!path.startsWith(prefix)) {
            return null;
        }
        int name = path.indexOf('/', prefix.length());
        if (name < 0) {
            return null;
        }
        int slash = path.indexOf('/', name + 1);
        int end = slash < 0 ? path.length() : slash;
        var service = path.substring(prefix.length(), name);
        var version = path.substring(name + 1, end);
        return isName(service) && isVersion(version)
                ? new ServiceAddress(
                        service, Integer.parseInt(version.substring(1)), path.substring(end))
                : null;
    }

    /** Whether a text is in the form of the names of services and resources. */
    public static boolean isName(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c != '-' && (c < 'a' || c > 'z') && !isDigit(c)) {
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
            if (!isDigit(text.charAt(i))) {
                return false;
            }
        }
        return true;
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }
}
