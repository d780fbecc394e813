package sandpiper.server.traffic;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.context.request.RequestContextHolder;

/**
 * What is found out about a call while it is handled, kept with the request over HTTP. Outside of
 * one, notes are not taken.
 */
public final class CallNotes {
    private static final String CALL = CallNotes.class.getName() + ".call";
    private static final String SAID = CallNotes.class.getName() + ".said";

    private CallNotes() {}

    /** What is called; {@code operation} is empty when it is not known. */
    record Noted(
            String service,
            int version,
            int revision,
            String resource,
            String operation,
            String protocol,
            String caller) {}

    /**
     * Notes what is called and by whom; the last of several in one request counts.
     *
     * @param revision of the contract that the caller named; 0 when none
     */
    public static void called(
            String service,
            int version,
            int revision,
            String resource,
            String operation,
            String protocol,
            String caller) {
        put(CALL, new Noted(service, version, revision, resource, operation, protocol, caller));
    }

    /** What the caller was told is wrong. */
    record Said(int status, String message) {}

    /**
     * Notes what the caller is told is wrong.
     *
     * @param status as HTTP counts, whatever the protocol answers with
     */
    public static void failed(int status, String message) {
        put(SAID, new Said(status, message));
    }

    private static void put(String name, Object value) {
        var request = RequestContextHolder.getRequestAttributes();
        if (request != null) {
            request.setAttribute(name, value, RequestAttributes.SCOPE_REQUEST);
        }
    }

    /** What was called, as {@code berth-desk v1 stays read}; nothing when it is no call. */
    public static Optional<String> title(HttpServletRequest request) {
        return Optional.ofNullable(noted(request))
                .map(one ->
                        "%s v%d %s %s"
                                .formatted(
                                        one.service(),
                                        one.version(),
                                        one.resource(),
                                        one.operation())
                                .strip());
    }

    static @Nullable Noted noted(HttpServletRequest request) {
        return request.getAttribute(CALL) instanceof Noted noted ? noted : null;
    }

    static @Nullable Said said(HttpServletRequest request) {
        return request.getAttribute(SAID) instanceof Said said ? said : null;
    }
}
