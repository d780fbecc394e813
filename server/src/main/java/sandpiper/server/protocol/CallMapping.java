package sandpiper.server.protocol;

import jakarta.servlet.http.HttpServletRequest;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.HttpRequestHandler;
import org.springframework.web.servlet.HandlerExecutionChain;
import org.springframework.web.servlet.HandlerMapping;
import sandpiper.engine.access.Actor;

/**
 * Leads calls of services in one protocol to who answers them. They are many and all of one form,
 * so the address is read instead of being matched with the patterns of every controller; measured,
 * that and writing the answer directly halve what a call over REST costs.
 */
public abstract class CallMapping implements HandlerMapping, Ordered {

    /** Before the controllers, which have contracts and events. */
    @Override
    public final int getOrder() {
        return -1;
    }

    @Override
    public final @Nullable HandlerExecutionChain getHandler(HttpServletRequest request) {
        var handler = handler(request);
        return handler == null ? null : new HandlerExecutionChain(handler);
    }

    /** Who answers a request, or {@code null} when it is no call in the protocol. */
    protected abstract @Nullable HttpRequestHandler handler(HttpServletRequest request);

    /** Who asks, or {@code null} when nobody has signed in over HTTP. */
    protected static @Nullable Actor actor() {
        var signedIn = SecurityContextHolder.getContext().getAuthentication();
        return signedIn != null && signedIn.getPrincipal() instanceof Actor actor ? actor : null;
    }
}
