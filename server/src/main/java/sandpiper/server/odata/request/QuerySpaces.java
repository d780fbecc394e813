package sandpiper.server.odata.request;

import java.util.regex.Pattern;

/**
 * Reads a plus in a query as the space that forms and many tools mean by it. OData itself knows a
 * plus only as a sign, before the offset of a time and in an exponent; there it stays one.
 */
final class QuerySpaces {
    private static final Pattern SPACE = Pattern.compile("(?<!\\d[eE])\\+|(?<=\\d[eE])\\+(?!\\d)");
    private static final Pattern OFFSET = Pattern.compile("(?<=\\d)\\+(?=\\d\\d(?::|%3A)\\d\\d)");

    private QuerySpaces() {}

    static String read(String query) {
        if (query.indexOf('+') < 0) {
            return query;
        }
        return SPACE.matcher(OFFSET.matcher(query).replaceAll("%2B")).replaceAll("%20");
    }
}
