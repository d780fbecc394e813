package sandpiper.server.service;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import sandpiper.engine.command.Leave;

/** What a caller says is meant, in the header {@code Sandpiper-Confirm}, whatever the protocol. */
public final class Confirmed {
    /** Its name. */
    public static final String HEADER = "Sandpiper-Confirm";

    /** Retires a record although others use it. */
    private static final String IN_USE = "in-use";

    private Confirmed() {}

    /** What a request says. */
    public static Leave of(HttpServletRequest request) {
        return new Leave(false, IN_USE.equals(request.getHeader(HEADER)));
    }

    /** The same of the request this thread answers; nothing outside of one. */
    static Leave ofThis() {
        return RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes one
                ? of(one.getRequest())
                : Leave.NONE;
    }
}
