package sandpiper.server.odata.request;

import java.util.Locale;
import java.util.regex.Pattern;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.server.api.ODataRequest;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Quoted;

/** Which version is spoken with a client, and how it says what form of JSON it wants. */
public final class Negotiation {
    /** What is spoken with whoever says nothing of it. */
    public static final String NEWEST = "4.01";

    private static final String OLDEST = "4.0";
    private static final Pattern VERSION = Pattern.compile("[0-9]+\\.[0-9]+");
    private static final Pattern STREAMING =
            Pattern.compile(";\\s*(odata\\.)?streaming=(true|false)", Pattern.CASE_INSENSITIVE);
    private static final Pattern METADATA =
            Pattern.compile(";\\s*metadata=", Pattern.CASE_INSENSITIVE);

    private Negotiation() {}

    /** The version of the answer: no greater than what the client can read (Protocol 8.2.7). */
    public static String version(@Nullable String maximum) {
        if (maximum == null || maximum.isBlank()) {
            return NEWEST;
        }
        var wanted = maximum.strip();
        if (!VERSION.matcher(wanted).matches() || wanted.compareTo(OLDEST) < 0) {
            throw Refusals.bad(
                    "OData-MaxVersion can be %s or %s here, not %s."
                            .formatted(OLDEST, NEWEST, Quoted.of(wanted)));
        }
        return wanted.equals(OLDEST) ? OLDEST : NEWEST;
    }

    /** Writes what 4.01 lets clients say in shorter words as the library knows it. */
    static void unify(ODataRequest request) {
        request.setHeader(HttpHeader.ODATA_MAX_VERSION, OLDEST);
        var sent = request.getHeader(HttpHeader.ODATA_VERSION);
        if (sent != null && sent.strip().equals(NEWEST)) {
            request.setHeader(HttpHeader.ODATA_VERSION, OLDEST);
        }
        for (var header : new String[] {HttpHeader.ACCEPT, HttpHeader.CONTENT_TYPE}) {
            var given = request.getHeader(header);
            if (given != null && given.toLowerCase(Locale.ROOT).contains("json")) {
                request.setHeader(header, unified(given));
            }
        }
    }

    /** {@code metadata=full} for {@code odata.metadata=full}; all is sent in one piece anyway. */
    static String unified(String type) {
        return METADATA.matcher(STREAMING.matcher(type).replaceAll(""))
                .replaceAll(";odata.metadata=");
    }
}
