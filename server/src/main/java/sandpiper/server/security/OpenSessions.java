package sandpiper.server.security;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import jakarta.servlet.http.HttpSessionEvent;
import jakarta.servlet.http.HttpSessionListener;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;

/** The sessions that are open, so that people can see and end their own. Safe for any thread. */
@Component
public class OpenSessions implements HttpSessionListener {
    private static final int LONGEST_AGENT = 200;

    private final Map<String, Open> open = new ConcurrentHashMap<>();

    /**
     * One that is open.
     *
     * @param id what it is called here; not what its cookie holds
     * @param address from which somebody signed in
     * @param agent what the browser calls itself, cut; may be empty
     * @param own whether it is the one that asks
     */
    public record Described(
            String id, String address, String agent, Instant begun, Instant used, boolean own) {}

    private record Open(HttpSession session, String id, String user, String address, String agent) {
        Described described(@Nullable String asking) {
            return new Described(
                    id,
                    address,
                    agent,
                    Instant.ofEpochMilli(session.getCreationTime()),
                    Instant.ofEpochMilli(session.getLastAccessedTime()),
                    session.getId().equals(asking));
        }
    }

    void begun(String user, HttpServletRequest request) {
        var session = request.getSession(false);
        if (session == null) {
            return;
        }
        var agent = request.getHeader(HttpHeaders.USER_AGENT);
        open.put(
                session.getId(),
                new Open(
                        session,
                        UUID.randomUUID().toString(),
                        user,
                        request.getRemoteAddr(),
                        agent == null
                                ? ""
                                : agent.substring(0, Math.min(LONGEST_AGENT, agent.length()))));
    }

    /** Those of a person, the one used last first. */
    public List<Described> of(String user, HttpServletRequest asking) {
        var session = asking.getSession(false);
        return open.values().stream()
                .filter(one -> one.user().equals(user))
                .flatMap(one -> {
                    try {
                        return Stream.of(one.described(session == null ? null : session.getId()));
                    } catch (IllegalStateException _) {
                        // It ended while it was looked at.
                        return Stream.of();
                    }
                })
                .sorted(Comparator.comparing(Described::used).reversed())
                .toList();
    }

    /** Ends one of a person's; tells whether there was such a one. */
    public boolean end(String user, String id) {
        var found =
                open.values().stream()
                        .filter(one -> one.user().equals(user) && one.id().equals(id))
                        .findFirst();
        found.ifPresent(one -> {
            try {
                one.session().invalidate();
            } catch (IllegalStateException _) {
                // It ended meanwhile, as was wanted.
            }
        });
        return found.isPresent();
    }

    @Override
    public void sessionDestroyed(HttpSessionEvent event) {
        open.remove(event.getSession().getId());
    }
}
