package sandpiper.server.odata.request;

import java.util.Objects;
import org.apache.olingo.server.api.ODataRequest;

/**
 * Bounds addresses before they are parsed, also those inside a batch, which come past the web
 * server's own bounds.
 */
final class AddressBounds {
    private static final int LONGEST = 16 << 10;
    private static final int DEEPEST = 100;
    private static final int LONGEST_NUMBER = 100;

    private AddressBounds() {}

    /** Lets an address be parsed that is not too long, too deep, or full of digits. */
    static void check(ODataRequest request) {
        var path = Objects.requireNonNullElse(request.getRawODataPath(), "");
        var query = Objects.requireNonNullElse(request.getRawQueryPath(), "");
        if (path.length() + query.length() > LONGEST) {
            throw Refusals.bad(
                    "An address may have %,d characters; this one has %,d."
                            .formatted(LONGEST, path.length() + query.length()));
        }
        check(path);
        check(query);
    }

    private static void check(String text) {
        int depth = 0;
        int digits = 0;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean opens = c == '(' || text.startsWith("%28", i);
            boolean closes = c == ')' || text.startsWith("%29", i);
            depth += opens ? 1 : closes ? -1 : 0;
            if (depth > DEEPEST) {
                throw Refusals.bad("The address is nested more than %d deep.".formatted(DEEPEST));
            }
            digits = c >= '0' && c <= '9' ? digits + 1 : 0;
            if (digits > LONGEST_NUMBER) {
                throw Refusals.bad(
                        "The address holds a number of more than %d digits."
                                .formatted(LONGEST_NUMBER));
            }
        }
    }
}
